import { expect, it } from 'vitest';
import { whiteNoise } from '../signal/index.js';
import { indexOfMatrix, modulationTransfer, MODULATION_HZ, speechTransmission } from './index.js';

const rows = (m: (f: number) => number) => Array.from({ length: 7 }, () => MODULATION_HZ.map(m));
const quiet = { speechDb: [70, 70, 66, 60, 54, 48, 42], noiseDb: Array(7).fill(-40) as number[] };

it('is 1 for perfect transfer, 0 for none, and (SNR + 15) / 30 for noise alone', () => {
  expect(indexOfMatrix(rows(() => 1 - 1e-12))).toBeCloseTo(1, 6);
  expect(indexOfMatrix(rows(() => 1e-12))).toBeCloseTo(0, 6);
  for (const snr of [-9, 0, 6]) {
    const m = 10 ** (snr / 10) / (1 + 10 ** (snr / 10));
    expect(indexOfMatrix(rows(() => m))).toBeCloseTo((snr + 15) / 30, 6); // the weights sum to 1
  }
});

it('falls with noise, with masking at high levels, and near the threshold of hearing', () => {
  const m = rows(() => 0.9);
  const best = indexOfMatrix(m, quiet);
  expect(best).toBeLessThan(indexOfMatrix(m) + 1e-12);
  expect(indexOfMatrix(m, { ...quiet, noiseDb: quiet.speechDb })).toBeLessThan(0.52);
  const louder = { ...quiet, speechDb: quiet.speechDb.map((v) => v + 40) };
  const softer = { ...quiet, speechDb: quiet.speechDb.map((v) => v - 40) };
  expect(indexOfMatrix(m, louder)).toBeLessThan(best - 0.02);
  expect(indexOfMatrix(m, softer)).toBeLessThan(best - 0.1);
});

it('has the modulation transfer of an exponential decay', () => {
  const rate = 1000;
  const t60 = 1.5;
  const squared = Float64Array.from({ length: 8000 }, (_, i) => Math.exp((-13.8155 * i) / rate / t60));
  for (const f of MODULATION_HZ)
    expect(modulationTransfer(squared, rate, f)).toBeCloseTo(
      1 / Math.hypot(1, (2 * Math.PI * f * t60) / 13.8155),
      2,
    );
});

it('agrees with the closed form for noise that decays alike in all octaves, within 0.01', () => {
  const rate = 48000;
  for (const t60 of [0.5, 1.5, 3]) {
    const noise = whiteNoise(262144, 5);
    const samples = noise.map((v, i) => v * Math.exp((-6.9078 * i) / rate / t60));
    const expected = indexOfMatrix(rows((f) => 1 / Math.hypot(1, (2 * Math.PI * f * t60) / 13.8155)));
    expect(Math.abs(speechTransmission({ samples, rate, zero: 0 })! - expected)).toBeLessThan(0.01);
  }
  expect(() => indexOfMatrix([[1]])).toThrow(/7 x 14/);
});
