import { createServer, type Server } from 'node:http';
import { connect, type AddressInfo, type Socket } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { answerToNone } from './noRequest';

/** As the server of the application answers, and as impatient as is said. */
const serverOf = (patienceMs: number) => {
  const server = createServer({ connectionsCheckingInterval: 50 }, (_request, response) =>
    response.end('here'),
  );
  server.headersTimeout = patienceMs;
  server.requestTimeout = patienceMs;
  server.on('clientError', (error: NodeJS.ErrnoException, socket: Socket) => {
    const answer = answerToNone({ code: error.code, bytesRead: socket.bytesRead });
    if (answer === null || !socket.writable) socket.destroy();
    else socket.end(answer);
  });
  return server;
};
const impatient = serverOf(200);
// a machine that stalls is not to be taken for a client that dawdles
const patient = serverOf(30_000);
const both = [impatient, patient];

beforeAll(async () => {
  for (const server of both) await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
});
afterAll(async () => {
  for (const server of both) await new Promise((resolve) => server.close(resolve));
});

/** What comes through a socket that sends something, and nothing more, until it is closed. */
const saidTo = (server: Server, sent: string): Promise<string> =>
  new Promise((resolve, reject) => {
    let said = '';
    const socket = connect((server.address() as AddressInfo).port, '127.0.0.1');
    socket.on('connect', () => sent && socket.write(sent));
    socket.on('data', (chunk) => (said += String(chunk)));
    socket.on('error', reject);
    socket.on('close', () => resolve(said));
  });

describe('a socket through which no request comes', () => {
  it('is closed without a word when a browser opened it ahead of use and did not use it in time', async () => {
    expect(await saidTo(impatient, '')).toBe('');
  });

  it('is told that half a request took too long', async () => {
    expect(await saidTo(impatient, 'GET / HTTP/1.1\r\nHost:')).toMatch(/^HTTP\/1\.1 408 /);
  });

  it('is told what was wrong with what is no request', async () => {
    expect(await saidTo(patient, 'PEBBLE / HTTP/1.1\r\n\r\n')).toMatch(/^HTTP\/1\.1 405 /);
    expect(await saidTo(patient, 'GET / HTTP/1.1\r\nno header\r\n\r\n')).toMatch(/^HTTP\/1\.1 400 /);
    expect(await saidTo(patient, `GET / HTTP/1.1\r\nHost: ${'a'.repeat(20_000)}\r\n\r\n`)).toMatch(
      /^HTTP\/1\.1 431 /,
    );
  });
});
