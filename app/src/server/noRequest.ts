/** What went wrong on a socket before there was a request to answer, by Node's code for it, and how much had come through it. */
interface Trouble {
  code: string | undefined;
  bytesRead: number;
}

const STATUS: Record<string, string> = {
  HPE_INVALID_METHOD: '405 Method Not Allowed',
  HPE_HEADER_OVERFLOW: '431 Request Header Fields Too Large',
  ERR_HTTP_REQUEST_TIMEOUT: '408 Request Timeout',
};

/**
 * What is answered to a request that is none.
 * @returns null for silence: browsers open sockets ahead of use, and an answer on one of them, sent because it was not used in
 *   time, would be taken for the answer to what it is used for at that moment (RFC 9112 9.5 lets either side close a socket
 *   that is idle)
 */
export function answerToNone({ code = '', bytesRead }: Trouble): string | null {
  if (bytesRead === 0) return null;
  const status = STATUS[code] ?? '400 Bad Request';
  return `HTTP/1.1 ${status}\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`;
}
