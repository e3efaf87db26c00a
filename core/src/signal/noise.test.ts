import { expect, it } from 'vitest';
import { pinkNoise, powerOf, realFft, seededRandom, seedFrom, whiteNoise } from './index.js';

const rms = (x: Float64Array) => Math.sqrt(x.reduce((sum, v) => sum + v * v, 0) / x.length);

it('repeats with the seed and differs without', () => {
  expect(whiteNoise(100, 7)).toEqual(whiteNoise(100, 7));
  expect(whiteNoise(100, 7)).not.toEqual(whiteNoise(100, 8));
  expect(seedFrom(1, 'spot 2')).toBe(seedFrom(1, 'spot 2'));
  expect(seedFrom(1, 'spot 2')).not.toBe(seedFrom(1, 'spot 3'));
});

it('is uniform and normal in its first moments', () => {
  const random = seededRandom(3);
  const n = 200_000;
  const uniform = Float64Array.from({ length: n }, () => random.uniform());
  const mean = uniform.reduce((a, b) => a + b) / n;
  expect(Math.abs(mean - 0.5)).toBeLessThan(4 * Math.sqrt(1 / 12 / n));
  expect(uniform.every((v) => v >= 0 && v < 1)).toBe(true);
  const normal = whiteNoise(n, 4);
  expect(Math.abs(rms(normal) - 1)).toBeLessThan(4 / Math.sqrt(2 * n));
  const fourth = normal.reduce((a, v) => a + v ** 4, 0) / n;
  expect(fourth).toBeCloseTo(3, 0);
});

it('gives pink noise equal power in every octave', () => {
  const noise = pinkNoise(1 << 18, 48000, 5);
  expect(rms(noise)).toBeCloseTo(1, 1);
  const power = powerOf(realFft(noise));
  const octave = (from: number) => {
    const bin = (f: number) => Math.round((f * (1 << 18)) / 48000);
    return 10 * Math.log10(power.slice(bin(from), bin(2 * from)).reduce((a, b) => a + b));
  };
  for (const from of [125, 500, 2000, 8000]) expect(octave(from) - octave(1000)).toBeCloseTo(0, 0);
});
