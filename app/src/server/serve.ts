// The server of the built application: everything that comes in passes one gate, and leaves with the same headers.
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import type { Socket } from 'node:net';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { hostsOf } from './addresses';
import { ALLOW, refusedAt, type Refused } from './gate';
import { HEADERS } from './policy';
import { listeningOf } from './listening';
import { answerToNone } from './noRequest';
import { Buckets } from './buckets';
import { WORKERS } from './workersFolder';

type Handler = (request: IncomingMessage, response: ServerResponse) => void;

process.env['ASTRO_NODE_AUTOSTART'] = 'disabled';
process.env[WORKERS] = dirname(fileURLToPath(import.meta.url));
// made by the build, beside this file
const entry = './entry.mjs';
const { handler } = (await import(/* @vite-ignore */ entry)) as { handler: Handler };

const listening = listeningOf(process.env);
const HOSTS_HOLD_MS = 5000;
let hosts = { of: hostsOf(listening, process.env['HOSTS']), at: Date.now() };
/** A notebook gets other addresses when it changes its network. */
function hostsNow() {
  if (Date.now() - hosts.at > HOSTS_HOLD_MS)
    hosts = { of: hostsOf(listening, process.env['HOSTS']), at: Date.now() };
  return hosts.of;
}

/** One address asks for no more than this: a page that opens takes about forty files at once. */
const requests = new Buckets({ burst: 600, perSecond: 120 });
/** So many sockets at once; a browser opens six. */
const MOST_SOCKETS = 400;
const REQUEST_MS = 30_000;

const server = createServer((request, response) => {
  for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
  const refused = answerTo(request);
  if (refused) return refuse(response, refused);
  // whoever asks could have written these: who it is, is said by the socket alone
  for (const name of Object.keys(request.headers))
    if (name.startsWith('x-forwarded-') || name === 'forwarded') delete request.headers[name];
  handler(request, response);
});

function answerTo(request: IncomingMessage): Refused | null {
  const one = (name: string) => {
    const value = request.headers[name];
    return Array.isArray(value) ? value[0] : value;
  };
  const refused = refusedAt(
    {
      method: request.method ?? '',
      url: request.url ?? '',
      host: request.headers.host,
      origin: one('origin'),
      site: one('sec-fetch-site'),
      mode: one('sec-fetch-mode'),
      target: one('sec-fetch-dest'),
    },
    hostsNow(),
  );
  if (refused) return refused;
  // counted only now: what a foreign page asks for in this browser must not use up its own share
  return requests.takes(request.socket.remoteAddress ?? '')
    ? null
    : { status: 429, problem: 'Too many requests at once. Wait a moment.' };
}

function refuse(response: ServerResponse, { status, problem }: Refused): void {
  response.writeHead(status, {
    'content-type': 'application/json',
    'cache-control': 'no-store',
    connection: 'close',
    ...(status === 405 ? { allow: ALLOW } : {}),
  });
  response.end(JSON.stringify({ problem }));
}

// a request that is none, before there is anything to answer with
server.on('clientError', (error: NodeJS.ErrnoException, socket: Socket) => {
  const answer = answerToNone({ code: error.code, bytesRead: socket.bytesRead });
  if (answer === null || !socket.writable) socket.destroy();
  else socket.end(answer);
});
// an upgrade is asked for by nobody of ours
server.on('upgrade', (_request, socket) => socket.destroy());
server.requestTimeout = REQUEST_MS;
server.headersTimeout = REQUEST_MS / 2;
server.maxConnections = MOST_SOCKETS;
server.on('error', (error: NodeJS.ErrnoException) => {
  console.error(
    error.code === 'EADDRINUSE'
      ? `Port ${listening.port} is taken. Choose another with PORT=...`
      : error.message,
  );
  process.exit(1);
});
server.listen(listening.port, listening.host);
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    server.close(() => process.exit(0));
    server.closeAllConnections();
  });
