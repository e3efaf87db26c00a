import { PROJECT_VERSION } from '@pebble-hall/core/project';
import { packFiles, unpackFiles } from '@pebble-hall/core/formats';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, afterEach, beforeAll, beforeEach, describe, it } from 'vitest';
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
      ['bomb.zip', bombOf(3e9), /bomb\.zip was not opened: Unpacked, the file would take more than \d+ MB/],
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
      /The sweep of Left at Home spot could not be stored and is kept in this tab only\. The disk is full/,
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
