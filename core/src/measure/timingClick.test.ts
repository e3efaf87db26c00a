import { expect, it } from 'vitest';
import { delayTrace, inverseRealFft, realFft, whiteNoise } from '../signal/index.js';
import { findTimingClick, timingClick } from './timingClick.js';

const RATE = 48000;
/** The click at a fractional delay, an echo behind it, and noise. */
const heard = (delay: number, noiseRms: number, echo = 0) => {
  const size = 1 << 15;
  const padded = new Float64Array(size);
  padded.set(timingClick(RATE, -20));
  const at = (d: number) => inverseRealFft(delayTrace(realFft(padded), d));
  const [direct, late] = [at(delay), at(delay + 190)];
  const noise = whiteNoise(size, 3);
  return direct.map((v, i) => 0.3 * v + 0.3 * echo * late[i]! + noiseRms * noise[i]!);
};

it.each([0.4, 100, 1234.56, 9000.9])('finds a click %f samples in, to a tenth of a sample', (delay) => {
  expect(Math.abs(findTimingClick(heard(delay, 1e-4), RATE)! - delay)).toBeLessThan(0.1);
});

it('takes the direct sound, not a reflection as strong as it', () => {
  expect(Math.abs(findTimingClick(heard(2000, 1e-4, 0.95), RATE)! - 2000)).toBeLessThan(0.3);
});

it('finds it within noise of its own RMS, and nothing where there is none', () => {
  expect(Math.abs(findTimingClick(heard(3000.5, 0.005), RATE)! - 3000.5)).toBeLessThan(0.5);
  for (let seed = 1; seed < 20; seed++) {
    expect(findTimingClick(whiteNoise(24000, seed), RATE)).toBeNull();
  }
  expect(findTimingClick(new Float64Array(24000), RATE)).toBeNull();
});
