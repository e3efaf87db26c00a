import { crc32, textOfBytes, unpackFiles } from '@pebble-hall/core/formats';
import { raysFrom, type TellsRays } from '@pebble-hall/core/project';
import { sentBy, traceGroup, type RoomRun } from '@pebble-hall/core/runs';
import { sceneOf } from '@pebble-hall/core/tracing';
import { createServer, request, type Server } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { callsOf, json, JSON_BODY } from './support/calls';
import { startServer } from './support/server.mjs';
import { User } from './support/user';

let server: Awaited<ReturnType<typeof startServer>>;
let calls: Awaited<ReturnType<typeof callsOf>>;
beforeAll(async () => {
  server = await startServer();
  calls = await callsOf(server.url);
});
afterAll(async () => server?.stop());

/** Sides of a box, each by the numbers of its corners: 1 along x, 2 along y, 4 up. */
const BOX = [
  [0, 1, 3, 2],
  [4, 5, 7, 6],
  [0, 1, 5, 4],
  [2, 3, 7, 6],
  [0, 2, 6, 4],
  [1, 3, 7, 5],
];

describe('rays traced by the server', () => {
  const talker = {
    id: 't',
    name: 'Talker',
    kind: 'talker' as const,
    position: { x: 1, y: 2, z: 1.5 },
    azimuthDeg: 20,
    elevationDeg: 0,
    voice: 'raised' as const,
  };
  const run: RoomRun = {
    id: 'run-1',
    name: 'Box',
    madeAt: 1,
    faces: BOX.map((side, i) => ({
      name: `face ${i}`,
      corners: side.map((c) => ({ x: 7 * (c & 1), y: (5 * (c & 2)) / 2, z: (3 * (c & 4)) / 4 })),
      absorption: Array.from({ length: 8 }, () => 0.2),
      scattering: Array.from({ length: 8 }, () => 0.3),
    })),
    volume: 105,
    air: { temperatureC: 20, relativeHumidityPercent: 50 },
    sources: [talker],
    receivers: [{ id: 'a', name: 'Seat', position: { x: 5, y: 2, z: 1.2 }, azimuthDeg: 180 }],
    mirrored: 2,
    lengthS: 0.5,
    raysPerGroup: 300,
    groups: 4,
    seed: 11,
    noiseLevelsDb: null,
    tracedBy: 'server',
    isHeld: false,
  };
  const sent = sentBy(talker, null);
  const ask = (change: object = {}) =>
    calls.own(
      '/api/rays',
      json(
        JSON.stringify({
          run,
          source: 0,
          group: 2,
          sent: {
            emission: Buffer.from(sent.emission!.buffer).toString('base64'),
            powerDb: sent.powerDb,
            delayS: 0,
          },
          ...change,
        }),
      ),
    );

  it('are the same numbers as in the browser, of the same seed', async () => {
    const answer = await ask();
    expect(answer.status).toBe(200);
    const files = unpackFiles(new Uint8Array(await answer.arrayBuffer()), { files: 10, bytes: 1e8 });
    const row = raysFrom(files, JSON.parse(textOfBytes(files['told.json']!)) as TellsRays, [run]);
    const here = traceGroup(run, sceneOf(run.faces), 0, 2, sent);
    expect(row.data).toEqual(here.data);
    expect(row.directions).toEqual(here.directions);
    // speech has nothing at 63 Hz
    expect(row.powerDb[0]).toBe(-Infinity);
  });
  it.each([
    ['a source that the run has not', { source: 3 }, /no such source/],
    ['no rays', { run: { ...run, raysPerGroup: 0 } }, /raysPerGroup/],
    ['nobody who hears it', { run: { ...run, receivers: [] } }, /receivers/],
    [
      'an emission that is cut off',
      { sent: { emission: 'AAAA', powerDb: sent.powerDb, delayS: 0 } },
      /emission/,
    ],
  ])('%s is refused with a reason', async (_, change, why) => {
    const answer = await ask(change);
    expect(answer.status).toBe(400);
    expect(((await answer.json()) as { problem: string }).problem).toMatch(why);
  });
});

describe('the processor endpoints', () => {
  const api = (path: string, init?: RequestInit, cookie?: string) =>
    calls.own(`/api/processor${path}`, init, cookie);
  const output = {
    trimDb: 0,
    delayMs: 0,
    inverted: false,
    muted: false,
    size: 'large',
    highPass: null,
    lowPass: null,
    sections: [],
    taps: 0,
    bassFeed: null,
    playsBass: false,
  };
  const outputs = Array.from({ length: 12 }, () => output);

  it.each([
    ['words', '/transfers', json('hello'), 400, /not JSON/],
    ['nothing', '/transfers', json(''), 400, /not JSON/],
    ['another shape', '/transfers', json('{"letter":"Z"}'), 400, /does not fit/],
    [
      'too many taps',
      '/transfers',
      json(
        JSON.stringify({
          letter: 'B',
          name: '',
          outputs: outputs.map((o) => ({ ...o, taps: 9000 })),
          checksum: 1,
        }),
      ),
      400,
      /taps/,
    ],
    [
      'NaN as a delay',
      '/transfers',
      json(
        JSON.stringify({
          letter: 'B',
          name: '',
          outputs: outputs.map((o) => ({ ...o, delayMs: NaN })),
          checksum: 1,
        }),
      ),
      400,
      /delayMs/,
    ],
    ['an empty memory to recall', '/recall', json('{"letter":"F"}'), 409, /empty/],
    ['a memory outside', '/memories/..%2F..%2Fetc%2Fpasswd', undefined, 400, /A to F/],
    ['a transfer that is not', '/transfers/nowhere/complete', json('{}'), 404, /No such transfer/],
  ])('refuse %s with a reason and no inside', async (_, path, init, status, reason) => {
    const response = await api(path, init);
    expect(response.status).toBe(status);
    const { problem } = (await response.json()) as { problem: string };
    expect(problem).toMatch(reason);
    expect(problem).not.toMatch(/\bat .*\.(m?js|ts)\b/);
  });

  it('stop reading at the limit when 100 MB come', async () => {
    const status = await new Promise<number>((resolve, reject) => {
      const { hostname, port } = new URL(server.url);
      const sending = request({
        hostname,
        port,
        path: '/api/processor/transfers',
        method: 'POST',
        headers: { 'content-type': 'application/json', origin: server.url, cookie: calls.cookie },
      });
      sending.on('response', (response) => {
        resolve(response.statusCode ?? 0);
        sending.destroy();
      });
      sending.on('error', reject);
      const megabyte = Buffer.alloc(1e6, 0x20);
      let sent = 0;
      const more = () => {
        while (!sending.destroyed && sent < 100) {
          sent++;
          if (!sending.write(megabyte)) return void sending.once('drain', more);
        }
        if (!sending.destroyed) sending.end();
      };
      more();
    });
    expect(status).toBe(413);
    expect((await api('/')).status).toBe(200);
  });

  it('give every browser a processor of its own', async () => {
    const [one, two] = [await calls.newCookie(), await calls.newCookie()];
    expect(one).not.toBe(two);
    const body = JSON.stringify({ letter: 'C', name: 'mine', outputs, checksum: checksumOf(outputs) });
    const begun = (await (await api('/transfers', json(body), one)).json()) as { id: string };
    expect((await api(`/transfers/${begun.id}/complete`, json('{}'), two)).status).toBe(404);
    expect((await api(`/transfers/${begun.id}/complete`, json('{}'), one)).status).toBe(200);
    expect(((await (await api('/', undefined, one)).json()) as { active: string }).active).toBe('C');
    expect(((await (await api('/', undefined, two)).json()) as { active: string }).active).toBe('A');
  });
});

/** The checksum as the processor's description says: CRC-32 over the settings as JSON, then the filters (none here). */
function checksumOf(outputs: { trimDb: number; delayMs: number }[]): number {
  return crc32(
    new TextEncoder().encode(
      JSON.stringify(outputs.map((o) => [o.trimDb, o.delayMs, false, false, null, null, 0, 'large', []])),
    ),
  );
}

describe('the endpoints of a round that is followed', () => {
  const follow = async (path: string, method = 'GET', body?: string) => {
    const init = { method, headers: JSON_BODY, ...(body === undefined ? {} : { body }) };
    const response = await calls.own(`/api/follow${path}`, init);
    return { status: response.status, ...((await response.json()) as { problem?: string; link?: string }) };
  };
  const end = async ({ link, key }: { link?: string; key?: string }) =>
    follow(`/${link}`, 'DELETE', JSON.stringify({ key }));

  it.each([
    ['what is not JSON', 'nonsense', 400, /not JSON/],
    ['a key that is none', '{"key":"zz"}', 400, /does not fit/],
    ['a megabyte', 'a'.repeat(1_000_000), 413, /larger than/],
    ['the key of another', JSON.stringify({ key: 'f'.repeat(32), state: {} }), 400, /does not fit/],
  ])('refuse %s, and go on', async (_, body, status, why) => {
    const begun = await follow('', 'POST', '{}');
    const refused = await follow(`/${begun.link}`, 'PUT', body);
    expect(refused.status).toBe(status);
    expect(refused.problem).toMatch(why);
    // it is still there for its own tab
    expect((await follow(`/${begun.link}`)).problem).toMatch(/about to begin/);
    await end(begun);
  });

  it('take no command that the screen does not offer, and know no other paths', async () => {
    const begun = await follow('', 'POST', '{}');
    expect(await follow(`/${begun.link}/commands`, 'POST', '{"do":"delete everything"}')).toMatchObject({
      status: 400,
    });
    expect(await follow('/..%2f..%2fetc%2fpasswd')).toMatchObject({ status: 404 });
  });
});

describe('the gate, over a socket', () => {
  /** Sends bytes as they are. @returns the status line */
  const raw = (text: string) =>
    new Promise<string>((resolve, reject) => {
      const { hostname, port } = new URL(server.url);
      const socket = connect(Number(port), hostname, () => socket.write(text));
      let got = '';
      socket.on('data', (bytes) => (got += bytes.toString('latin1')));
      socket.on('end', () => resolve(got.split('\r\n')[0]!));
      socket.on('error', reject);
      socket.setTimeout(5000, () => socket.destroy(new Error(`no answer to ${text.slice(0, 60)}: ${got}`)));
    });
  const host = () => new URL(server.url).host;

  it.each<[string, () => string, string]>([
    ['TRACE', () => `TRACE / HTTP/1.1\r\nHost: ${host()}\r\n\r\n`, '405'],
    ['a method that is none', () => `BREW / HTTP/1.1\r\nHost: ${host()}\r\n\r\n`, '405'],
    ['another name', () => `GET / HTTP/1.1\r\nHost: rebound.example\r\n\r\n`, '421'],
    ['no name', () => `GET / HTTP/1.0\r\n\r\n`, '421'],
    ['what is no request', () => `GET / nonsense\r\n\r\n`, '400'],
    [
      'a path out of the folder',
      () => `GET /..%2f..%2f..%2fetc/passwd HTTP/1.1\r\nHost: ${host()}\r\nConnection: close\r\n\r\n`,
      '404',
    ],
    [
      'too long headers',
      () => `GET / HTTP/1.1\r\nHost: ${host()}\r\nX: ${'a'.repeat(40_000)}\r\n\r\n`,
      '431',
    ],
  ])('answers to %s, and goes on', async (_what, text, status) => {
    expect(await raw(text())).toContain(` ${status}`);
    expect((await calls.own('/api/processor')).status).toBe(200);
  });

  it('counts wrong codes by the socket, whatever the guesser writes', async () => {
    let refused = 0;
    for (let i = 0; i < 40; i++) {
      const guess = json('{"code":"AAAAAAAA"}');
      const response = await calls.own('/api/follow/pair', {
        ...guess,
        headers: { ...guess.headers, 'x-forwarded-for': `198.51.100.${i}`, forwarded: `for=198.51.100.${i}` },
      });
      if (response.status === 429) refused++;
    }
    expect(refused).toBe(28);
  });

  it('tells browsers to keep to this server', async () => {
    for (const path of ['/', '/api/processor', '/mark.svg', '/nothing-of-ours']) {
      const { headers } = await calls.own(path);
      expect(headers.get('content-security-policy'), path).toMatch(
        /default-src 'none'.*frame-ancestors 'none'/,
      );
      expect(headers.get('content-security-policy'), path).not.toMatch(
        /unsafe-inline|unsafe-eval'(?<!wasm-unsafe-eval')|\*/,
      );
      expect(headers.get('x-content-type-options'), path).toBe('nosniff');
      expect(headers.get('referrer-policy'), path).toBe('no-referrer');
    }
  });
});

describe('a page of somebody else', () => {
  let foreign: Server;
  let origin: string;
  beforeAll(async () => {
    foreign = createServer((_request, response) =>
      response.writeHead(200, { 'content-type': 'text/html' }).end('<title>A page of somebody else</title>'),
    );
    await new Promise<void>((resolve) => foreign.listen(0, '127.0.0.1', resolve));
    origin = `http://127.0.0.1:${(foreign.address() as AddressInfo).port}`;
  });
  afterAll(() => void foreign.close());

  it('neither reads nor changes anything of a user who has Pebble Hall open, and cannot show it within itself', async () => {
    const user = await User.at(server.url);
    try {
      await user.visit('/hand-over');
      await user.sees('Hand over');
      await user.driver.switchTo().newWindow('tab');
      await user.driver.get(origin);
      const tried = await user.driver.executeAsyncScript<Record<string, string>>(
        `const [at, done] = arguments;
        const tell = (promise) => promise.then((r) => r.type === 'opaque' ? 'opaque' : 'read', () => 'refused');
        const picture = (path) => new Promise((resolve) => {
          const img = new Image();
          img.onload = () => resolve('read');
          img.onerror = () => resolve('refused');
          img.src = at + path;
        });
        const body = JSON.stringify({ letter: 'B' });
        (async () => {
          const got = {
            state: await tell(fetch(at + '/api/processor', { credentials: 'include' })),
            recall: await tell(fetch(at + '/api/processor/recall', { method: 'POST', credentials: 'include', headers: { 'content-type': 'application/json' }, body })),
            picture: await picture('/_image?href=/mark.svg&w=20000&h=20000&f=png'),
            mark: await picture('/mark.svg'),
          };
          for (let i = 0; i < 1500; i++) fetch(at + '/api/processor/recall', { method: 'POST', mode: 'no-cors', body }).catch(() => {});
          setTimeout(() => done(got), 4000);
        })();`,
        server.url,
      );
      expect(tried).toEqual({ state: 'refused', recall: 'refused', picture: 'refused', mark: 'refused' });
      // and what it asked for so often does not keep the user's own page waiting
      await user.driver.get(`${server.url}/hand-over`);
      await user.sees('Hand over');
      const { active } = JSON.parse(
        await user.driver.executeAsyncScript<string>(
          `fetch('/api/processor').then((r) => r.text()).then(arguments[0])`,
        ),
      ) as { active: string };
      expect(active).toBe('A');
    } finally {
      await user.close();
    }
  });
});

it('a phone finds the page at the address of this machine that is shown, and is paired by what the square holds', async () => {
  const other = await startServer({ HOST: '127.0.0.2' });
  try {
    const response = await fetch(`${other.url}/api/follow`, {
      ...json('{}'),
      headers: { ...JSON_BODY, origin: other.url },
    });
    const { addresses, link, key } = (await response.json()) as {
      addresses: string[];
      link: string;
      key: string;
    };
    expect(addresses).toEqual([`${other.url}/follow`]);
    const page = await fetch(addresses[0]!);
    expect([page.status, await page.text()]).toEqual([200, expect.stringContaining('Follow a round')]);
    const looked = await fetch(`${other.url}/api/follow/${link}`);
    expect(((await looked.json()) as { problem: string }).problem).toMatch(/about to begin/);
    expect(key).not.toBe(link);
  } finally {
    await other.stop();
  }
});
