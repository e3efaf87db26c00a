import { readZipNames } from './support/zipNames';
import { exponentialSweep } from '@pebble-hall/core/signal';
import { plainMemory } from '@pebble-hall/stand-ins/processor';
import { noFaults, SimulatedRoom } from '@pebble-hall/stand-ins/rig';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { fakeCapture, writeCaptureFile } from './support/captureFile.mjs';
import { startServer } from './support/server.mjs';
import { User } from './support/user';

const RATE = 48000;
/** As a walk sweeps; the page's own level does not matter, as the file plays its own. */
const SWEEP_S = 3;

/** What a microphone hears of Left in a room, the loopback beside it: silence, a sweep as the walk plays it, decay. */
function leftInARoom(): string {
  const sweep = exponentialSweep({ rate: RATE, from: 20, to: 20000, durationS: SWEEP_S, levelDbfs: -20 });
  const silence = 1.5 * RATE;
  const samples = new Float32Array(silence + sweep.samples.length);
  samples.set(sweep.samples, silence);
  const { outputs, filters } = plainMemory();
  const [microphone, loopback] = new SimulatedRoom(1).record({
    signals: [{ output: 1, samples }],
    lengthFrames: samples.length + 3 * RATE,
    microphones: [
      { input: 1, position: { x: 3.6, y: 1.72, z: 1.14 }, serial: 4417, incidenceDeg: 0, gainDb: 0 },
    ],
    outputs,
    filters,
    faults: noFaults(),
    take: 1,
  });
  return writeCaptureFile([microphone!, loopback!]);
}

let server: Awaited<ReturnType<typeof startServer>>;
let user: User;
beforeAll(async () => {
  server = await startServer();
  user = await User.at(server.url, { args: fakeCapture(leftInARoom()) });
});
afterAll(async () => {
  await user?.close();
  await server?.stop();
});

it('a room of one’s own through real devices: at most eight clicks and a minute to its first sweep', async () => {
  await user.visit('/');
  await user.sees('Net Loft');
  const began = Date.now();
  let clicks = 0;
  const click = async (run: Promise<void>) => {
    await run;
    clicks++;
  };
  await click(user.press('Project'));
  await click(user.press('New project'));
  // a control room begins with two in front
  await click(user.among('Kind of place', 'control room'));
  await click(user.among('Measure with', 'devices of this computer'));
  await click(user.press('Make it'));
  await click(user.press('Open devices'));
  await user.sees(/Connected: 2 in, 2 out at 48 kHz/);
  // the file in place of a microphone begins anew with each take then, as no microphone needs
  await user.tick('Let go of the input between takes');
  await click(user.click('//a[contains(., "Mic walk")]'));
  await user.sees('0 good, of 6');
  await click(user.press('Take this spot'));
  await user.reads('Sweeps', /1 good|2 good/, 90_000);
  expect(clicks).toBeLessThanOrEqual(8);
  expect(Date.now() - began).toBeLessThan(60_000);
  await user.sees('2 good, of 6', 60_000);
});

it('no simulated processor stands in its way: what is designed goes by files, with a report, and counts as in place once one says so', async () => {
  await user.reads('In the chain', /by files, no filters/);
  await user.click('//a[contains(., "Correct")]');
  await user.find('//*[@aria-label="Which filter"] | //*[@aria-label="Target"]');
  await user.click('//a[contains(., "Hand over")]');
  await user.reads('Handed over', /No processor, files only/);
  await user.reads('In place', /say so here/);
  await user.press('Filters and settings');
  await user.press('Save zip');
  const zip = await user.download(/first-variant\.zip$/);
  expect(readZipNames(zip.bytes)).toEqual(
    expect.arrayContaining([expect.stringMatching(/left.*\.wav$/), expect.stringMatching(/README/i)]),
  );
  await user.press('Report');
  const report = (await user.download(/report\.html$/)).bytes.toString();
  expect(report).toContain('New control room');
  expect(report).not.toMatch(/Skerry|memory [A-F]\b/);
  const [first] = await user.driver.getAllWindowHandles();
  await user.driver.switchTo().window(first!);
  await user.press('First variant is in place');
  await user.reads('In the chain', /by files, First variant/, 60_000);
  await user.press('Taken out again');
  await user.reads('In the chain', /by files, no filters/);
});
