import { connect } from 'node:net';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { callsOf } from '../support/calls';
import { startServer } from '../support/server.mjs';
import { Tally, times } from './tally';

let server: Awaited<ReturnType<typeof startServer>>;
let calls: Awaited<ReturnType<typeof callsOf>>;
beforeAll(async () => {
  server = await startServer();
  calls = await callsOf(server.url);
});
afterAll(async () => server?.stop());

/** Sends bytes as they are. @returns status, or 0 where the server hung up without a word */
const raw = (text: string) =>
  new Promise<number>((resolve) => {
    const { hostname, port } = new URL(server.url);
    const socket = connect(Number(port), hostname, () => socket.write(text, 'latin1'));
    let got = '';
    const done = () => {
      socket.destroy();
      resolve(Number(/^HTTP\/1\.1 (\d+)/.exec(got)?.[1] ?? 0));
    };
    socket.on('data', (bytes) => (got += bytes.toString('latin1')));
    socket.on('end', done);
    socket.on('error', done);
    // what never ends is ended by the server, in its own time: not waited for here
    socket.setTimeout(300, done);
  });

const PATHS = [
  '/',
  '/api/processor',
  '/api/processor/recall',
  '/api/processor/outputs',
  '/api/processor/transfers',
  '/api/processor/transfers/t1',
  '/api/processor/memories/B',
  '/api/follow',
  '/api/follow/pair',
  '/api/follow/x',
  '/api/microphones/4417',
  '/api/rays',
  '/_image?href=/mark.svg&w=9999',
  '/_server-islands/a',
  '/../../etc/passwd',
  '/%2e%2e/%2e%2e/etc/passwd',
  '/mark.svg',
  '/nothing',
];
const METHODS = [
  'GET',
  'HEAD',
  'POST',
  'PUT',
  'PATCH',
  'DELETE',
  'OPTIONS',
  'TRACE',
  'CONNECT',
  'BREW',
  'get',
];
const BODIES = [
  '',
  '{}',
  '[]',
  'null',
  '{"letter":"B"}',
  '{"letter":"__proto__"}',
  '{"changes":[{"output":1e9}]}',
  '{"code":"AAAAAAAA"}',
  '['.repeat(50_000),
  '{"a":'.repeat(10_000),
  '\u0000'.repeat(100),
  '"',
  '9'.repeat(60_000),
];

it(
  'raw requests of every kind are answered with a status of ours, and the server goes on',
  { timeout: 600_000 },
  async () => {
    const tally = new Tally('raw requests, foreign origins');
    const { pick, random } = tally;
    const { host } = new URL(server.url);
    const foreign = ['rebound.example', 'localhost', '', `${host}.rebound.example`, '[::1]', `user@${host}`];
    for (let i = 0; i < times(2500); i++) {
      const [method, path, body] = [pick(METHODS), pick(PATHS), pick(BODIES)];
      const isOurs = random(2) === 0;
      const from = isOurs ? `http://${host}` : pick(['http://rebound.example', 'null', '']);
      const name = isOurs || random(2) === 0 ? host : pick(foreign);
      const length =
        random(6) === 0 ? pick(['-1', '1e9', '99999999999', 'x']) : String(Buffer.byteLength(body));
      const status = await raw(
        `${method} ${path} HTTP/1.1\r\nHost: ${name}\r\n${from === '' ? '' : `Origin: ${from}\r\n`}Cookie: ${isOurs ? calls.cookie : `pebble-desk=${'a'.repeat(random(80))}`}\r\nContent-Type: application/json\r\nContent-Length: ${length}\r\nX-Forwarded-For: 198.51.100.${random(255)}\r\nConnection: close\r\n\r\n${body}`,
      );
      const changes = !['GET', 'HEAD'].includes(method);
      const mayNot = (changes && !isOurs) || name !== host;
      tally.attack(
        `${method} ${path} for ${name || 'nobody'} from ${from || 'nowhere'}`,
        status < 500 && !(mayNot && status >= 200 && status < 400),
        `answered ${status}`,
      );
    }
    const response = await calls.own('/api/processor');
    tally.attack('the server afterwards', response.status === 200, String(response.status));
    expect(tally.told()).toEqual([]);
  },
);

it(
  'codes are not found by guessing, whatever addresses the guesser writes down; a paired phone goes on',
  { timeout: 600_000 },
  async () => {
    const tally = new Tally('guessed codes');
    // where nobody has begun rounds before
    const quiet = await startServer();
    const calls = await callsOf(quiet.url);
    const begun = (await (
      await calls.own('/api/follow', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: '{}',
      })
    ).json()) as { link: string };
    let passed = 0;
    for (let i = 0; i < times(2000); i++) {
      const response = await calls.own('/api/follow/pair', {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'x-forwarded-for': `198.51.${i % 250}.${i % 199}` },
        body: JSON.stringify({
          code: Array.from({ length: 8 }, () => tally.pick([...'ABCDEFGH23456789'])).join(''),
        }),
      });
      if (response.status !== 429) passed++;
      tally.attack(`guess ${i}`, response.status === 404 || response.status === 429, String(response.status));
    }
    tally.attack('guesses that were looked at', passed <= 40, `${passed} of them`);
    // here both have one address, and with it one share of requests
    await new Promise((resolve) => setTimeout(resolve, 3000));
    const phone = await calls.own(`/api/follow/${begun.link}`);
    tally.attack('a paired phone', phone.status === 409, String(phone.status));
    await quiet.stop();
    expect(tally.told()).toEqual([]);
  },
);

it(
  'processors of others are not pushed out by strangers without a cookie',
  { timeout: 600_000 },
  async () => {
    const tally = new Tally('strangers at the processor');
    const headers = { 'content-type': 'application/json' };
    const rename = (name: string) =>
      calls.own('/api/processor/memories/A', { method: 'PATCH', headers, body: JSON.stringify({ name }) });
    expect((await rename('Evening')).status).toBe(200);
    for (let i = 0; i < times(1000); i++) {
      const cookie =
        i % 2 ? `pebble-desk=${crypto.randomUUID()}` : `pebble-desk=${crypto.randomUUID()}.${'0'.repeat(64)}`;
      const response = await calls.own(
        '/api/processor/recall',
        { method: 'POST', headers, body: '{"letter":"A"}' },
        cookie,
      );
      tally.attack(
        `stranger ${i}`,
        response.status === 409 || response.status === 429,
        String(response.status),
      );
    }
    await new Promise((resolve) => setTimeout(resolve, 2000));
    const state = (await (await calls.own('/api/processor')).json()) as { memories: { name?: string }[] };
    tally.attack('what was there', state.memories[0]?.name === 'Evening', JSON.stringify(state.memories[0]));
    expect(tally.told()).toEqual([]);
  },
);
