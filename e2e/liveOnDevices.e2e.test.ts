import { biquadTrace, filterBiquads, peaking, pinkNoise } from '@pebble-hall/core/signal';
import { afterAll, beforeAll, expect } from 'vitest';
import { fakeCapture, writeCaptureFile } from './support/captureFile.mjs';
import { onSound } from './support/onSound';
import { startServer } from './support/server.mjs';
import { User } from './support/user';

const RATE = 48_000;
const DELAY = 720;
/** What lies between the reference and the microphone. */
const FILTER = [peaking(1000, 9, 1.5, RATE)];

let server: Awaited<ReturnType<typeof startServer>>;
let user: User;

/** A programme on input 2, and on input 1 the same behind a filter, 15 ms later, 6 dB softer. */
function programme(): string {
  const samples = pinkNoise(20 * RATE, RATE, 3).map((v) => 0.05 * v);
  const filtered = filterBiquads(samples, FILTER);
  const microphone = Float32Array.from(samples, (_, i) => (i >= DELAY ? 0.5 * filtered[i - DELAY]! : 0));
  return writeCaptureFile([microphone, Float32Array.from(samples)]);
}

beforeAll(async () => {
  server = await startServer();
  user = await User.at(server.url, { args: fakeCapture(programme()) });
});
afterAll(async () => {
  await user?.close();
  await server?.stop();
});

onSound(
  'the same Live on the devices of this computer: programme as the signal, its filter and delay found',
  async () => {
    await user.visit('/rig#connect');
    await user.tick('This computer');
    await user.press('Open devices');
    await user.sees(/Connected: 2 in, 2 out at 48 kHz/);
    await user.visit('/live');
    await user.choose('Microphone file', 'nothing');
    await user.choose('Averaged over', 'all since restarted');
    await user.press('Start the session');
    await user.reads('What is heard', /Microphone is 15\.0\d ms after the loopback/);
    await user.press('Find');
    await user.reads('Delay', /\d+ % sure/);
    await user.press('Restart');
    await new Promise((resolve) => setTimeout(resolve, 7000));
    await user.press('Keep');
    await user.reads('Kept traces', /1 in Traces/);
    await user.press('Stop the session');
    await user.visit('/traces#library');
    await user.click('//button[@aria-pressed][contains(@title, "Microphone")]');
    await user.press('Export');
    await user.press('Text');
    const { bytes } = await user.download(/^Microphone.*\.txt$/);
    const rows = bytes
      .toString()
      .split('\n')
      .filter((line) => /^\d/.test(line))
      .map((line) => line.split('\t').map(Number));
    let judged = 0;
    for (const [f, level, , coherence] of rows) {
      // where the fake device loses sound by itself a block tells less than it should
      if (f! < 80 || f! > 10_000 || coherence! < 0.9) continue;
      judged++;
      const { re, im } = biquadTrace(FILTER, Float64Array.of(f!), RATE);
      const want = 20 * Math.log10(Math.hypot(re[0]!, im[0]!)) - 6.02;
      expect(Math.abs(level! - want), `${f} Hz`).toBeLessThan(1);
    }
    expect(judged).toBeGreaterThan(150);
  },
);
