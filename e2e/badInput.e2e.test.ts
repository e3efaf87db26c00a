import { PROJECT_VERSION } from '@pebble-hall/core/project';
import { crc32, packFiles, unpackFiles } from '@pebble-hall/core/formats';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { startServer } from './support/server.mjs';
import { User } from './support/user';

const demoFile = readFileSync(
  fileURLToPath(new URL('../app/public/demo/saltmarsh-boathouse.pebble.zip', import.meta.url)),
);
let server: Awaited<ReturnType<typeof startServer>>;
const folder = mkdtempSync(join(tmpdir(), 'pebble-hall-bad-'));

beforeAll(async () => {
  server = await startServer();
});
afterAll(async () => {
  await server?.stop();
  rmSync(folder, { recursive: true, force: true });
});

const file = (name: string, contents: string | Uint8Array) => {
  const path = join(folder, name);
  writeFileSync(path, contents);
  return path;
};

describe('the processor endpoints', () => {
  const api = (path: string, init?: RequestInit) => fetch(`${server.url}/api/processor${path}`, init);
  const json = (body: string) => ({ method: 'POST', headers: { 'content-type': 'application/json' }, body });
  const cookieOf = async () => (await api('/')).headers.get('set-cookie')!.split(';')[0]!;
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
        headers: { 'content-type': 'application/json' },
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
    const [one, two] = [await cookieOf(), await cookieOf()];
    expect(one).not.toBe(two);
    const as = (cookie: string, init: RequestInit = {}) => ({
      ...init,
      headers: { ...(init.headers as Record<string, string>), cookie },
    });
    const body = JSON.stringify({ letter: 'C', name: 'mine', outputs, checksum: checksumOf(outputs) });
    const begun = (await (await api('/transfers', as(one, json(body)))).json()) as { id: string };
    expect((await api(`/transfers/${begun.id}/complete`, as(two, json('{}')))).status).toBe(404);
    expect((await api(`/transfers/${begun.id}/complete`, as(one, json('{}')))).status).toBe(200);
    expect(((await (await api('/', as(one))).json()) as { active: string }).active).toBe('C');
    expect(((await (await api('/', as(two))).json()) as { active: string }).active).toBe('A');
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
    const response = await fetch(`${server.url}/api/follow${path}`, {
      method,
      headers: { 'content-type': 'application/json' },
      ...(body === undefined ? {} : { body }),
    });
    return { status: response.status, ...((await response.json()) as { problem?: string; code?: string }) };
  };

  it.each([
    ['what is not JSON', 'nonsense', 400, /not JSON/],
    ['a key that is none', '{"key":"zz"}', 400, /does not fit/],
    ['a megabyte', 'a'.repeat(1_000_000), 413, /larger than/],
    ['the key of another', JSON.stringify({ key: 'f'.repeat(32), state: {} }), 400, /does not fit/],
  ])('refuse %s, and go on', async (_, body, status, why) => {
    const { code } = await follow('', 'POST', '{}');
    const refused = await follow(`/${code}`, 'PUT', body);
    expect(refused.status).toBe(status);
    expect(refused.problem).toMatch(why);
    // it is still there for its own tab
    expect((await follow(`/${code}`)).problem).toMatch(/about to begin/);
  });

  it('take no command that the screen does not offer, and know no other paths', async () => {
    const { code } = await follow('', 'POST', '{}');
    expect(await follow(`/${code}/commands`, 'POST', '{"do":"delete everything"}')).toMatchObject({
      status: 400,
    });
    expect(await follow('/..%2f..%2fetc%2fpasswd')).toMatchObject({ status: 404 });
  });
});

describe('in the browser', () => {
  let user: User;
  beforeEach(async () => {
    user = await User.at(server.url);
  });
  afterEach(async () => {
    await user.close();
  });
  const onNewPages = (source: string) =>
    user.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', { source });

  it('files that are not right are refused with a reason, and what is open stays', async () => {
    await user.visit('/rig#microphones');
    await user.sees('Siskin M1 4417, at the source');
    for (const [name, text, reason] of [
      ['words.txt', '20 1\nforty 2\n50 3\n', /words\.txt was not taken.*Line 2 is not a row/],
      [
        'unsorted.txt',
        '20 1\n50 1\n40 1\n1000 0\n20000 0\n',
        /unsorted\.txt was not taken.*Line 3: 40 Hz is lower/,
      ],
      ['short.txt', '20 1\n2000 1\n', /short\.txt was not taken.*Only 2 rows/],
      ['large.txt', '20 1\n100 1\n1000 0\n5000 45\n20000 2', /large\.txt was not taken.*45 dB/],
    ] as const) {
      await user.chooseFile('Calibration file', file(name, text));
      await user.sees(reason);
    }
    const parts = unpackFiles(demoFile, { files: 10, bytes: 1e6 });
    const newer = new TextDecoder()
      .decode(parts['project.json'])
      .replace(`"version": ${PROJECT_VERSION}`, '"version": 999');
    for (const [name, bytes, reason] of [
      [
        'half.zip',
        demoFile.subarray(0, demoFile.length / 2),
        /half\.zip was not opened: The zip file is damaged or cut off/,
      ],
      ['letter.zip', 'dear aunt, how are you today', /letter\.zip was not opened: This is not a zip file/],
      [
        'newer.zip',
        packFiles({ 'project.json': new TextEncoder().encode(newer) }),
        /newer\.zip was not opened: The project was saved by a newer Pebble Hall/,
      ],
      ['bomb.zip', bombOf(3e9), /bomb\.zip was not opened: Unpacked, the file would take more than 2000 MB/],
    ] as const) {
      await user.chooseFile('Project file', file(name, bytes));
      await user.sees(reason);
    }
    await user.sees('Siskin M1 4417, at the source');
    await user.sees('Saltmarsh Boathouse, the Net Loft');
  });

  it('a door that slams, a silent output and a hot input are named, with what to do', async () => {
    await user.visit('/rig');
    await user.type('Test level', '-28');
    await user.practise('Output 4 carries nothing');
    await user.press('Check Surround left');
    await user.sees('Nothing arrived.');
    await user.press('Not fitted?');
    await user.sees('left out');
    await user.practise('Output 4 carries nothing');
    await user.practise('The microphone input is far too hot');
    await user.press('Check Left');
    await user.sees(/the microphone input clipped .*lower the input gain/);
    await user.practise('The microphone input is far too hot');
    await user.practise('A door slams during the next sweep');
    await user.visit('/mic-walk');
    await (await user.find('//button[starts-with(@aria-label, "Left at Home spot:")]')).click();
    await user.press('Take this one');
    await user.sees(
      /Home spot, Left: a (bang|noise) at \d\.\d s of the sweep, [\d.]+ k?Hz to [\d.]+ k?Hz\. Repeated by itself, and good now\./,
      60_000,
    );
    await user.sees('1 good, of 24', 30_000);
  });

  it('a sweep that cannot be stored is kept, and stored once there is room', async () => {
    await onNewPages(`
      const put = IDBObjectStore.prototype.put;
      IDBObjectStore.prototype.put = function (...args) {
        if (window.__full) throw new DOMException('full', 'QuotaExceededError');
        return put.apply(this, args);
      };`);
    await user.visit('/mic-walk');
    await user.sees('0 good, of 28');
    await user.driver.executeScript('window.__full = true');
    await (await user.find('//button[starts-with(@aria-label, "Left at Home spot:")]')).click();
    await user.press('Take this one');
    await user.sees(
      /1 sweep could not be stored and is kept in this tab only\. Left at Home spot: The browser has no room left/,
      30_000,
    );
    await user.driver.executeScript('window.__full = false');
    await user.press('Store again');
    await user.sees('1 good, of 28');
  });

  it('a browser that forbids storing says so and what to do', async () => {
    await onNewPages(`IDBFactory.prototype.open = () => { throw new DOMException('no', 'SecurityError'); };`);
    await user.driver.get(server.url);
    await user.sees('This browser does not let Pebble Hall store anything here');
    await user.sees('Allow site data for this address');
  });

  it('two tabs on one project see each other, both keep up, and only one measures', async () => {
    await user.visit('/rig');
    await user.sees('not checked yet');
    const first = await user.driver.getWindowHandle();
    await user.driver.switchTo().newWindow('tab');
    await user.visit('/rig');
    await user.sees('This project is also open in another tab');
    await user.type('Test level', '-31');
    await user.press('Check every channel');
    const second = await user.driver.getWindowHandle();
    await user.driver.switchTo().window(first);
    await user.until(
      'the level of the other tab',
      async () => (await (await user.field('Test level')).getAttribute('value')) === '-31 dBFS',
    );
    await user.press('Listen to the room');
    await user.sees('Another tab is measuring with this rig');
    await user.driver.switchTo().window(second);
    await user.until(
      'the check goes on',
      async () => ((await user.text()).match(/dB above the noise/g) ?? []).length >= 2,
    );
    await user.press('Cancel');
  });
});

/** A zip whose directory claims that its one part unpacks to so many bytes. */
function bombOf(claimed: number): Uint8Array {
  const zip = packFiles({ 'project.json': new Uint8Array(100_000) });
  const view = new DataView(zip.buffer, zip.byteOffset, zip.byteLength);
  for (let i = 0; i < zip.length - 4; i++)
    if (view.getUint32(i, true) === 0x02014b50) view.setUint32(i + 24, claimed, true);
  return zip;
}
