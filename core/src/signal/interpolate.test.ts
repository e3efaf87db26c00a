import { describe, expect, it } from 'vitest';
import { interpolateLog, interpolateSmooth, logGrid, seededRandom } from './index.js';

const f64 = (...values: number[]) => Float64Array.from(values);

it('is linear over log frequency, exact at its points and flat outside', () => {
  const got = interpolateLog(
    f64(100, 1000, 10000),
    f64(0, 10, -10),
    f64(0, 50, 100, 316.227766, 1000, 3162.27766, 20000),
  );
  [0, 0, 0, 5, 10, 0, -10].forEach((want, i) => expect(got[i]).toBeCloseTo(want, 6));
});

it('does not need ascending wanted frequencies', () => {
  const got = interpolateLog(f64(100, 1000, 10000), f64(0, 10, -10), f64(10000, 100, 1000));
  expect(Array.from(got)).toEqual([-10, 0, 10]);
  expect(() => interpolateLog(f64(), f64(), f64(1))).toThrow(/0 frequencies/);
});

describe('without a bend', () => {
  const frequency = Float64Array.from({ length: 61 }, (_, i) => 20 * 2 ** (i / 6));
  const random = seededRandom(3);
  const rough = frequency.map(() => 12 * random.normal());
  const between = logGrid(20, 19_000, 600).subarray(1);

  it('goes through its points, and never beyond the two that it lies between', () => {
    const at = interpolateSmooth(frequency, rough, frequency);
    rough.forEach((v, i) => expect(at[i]).toBeCloseTo(v, 9));
    const found = interpolateSmooth(frequency, rough, between);
    between.forEach((f, j) => {
      const i = frequency.findIndex((g) => g > f);
      const [a, b] = [rough[i - 1]!, rough[i]!];
      expect(found[j]!).toBeGreaterThanOrEqual(Math.min(a, b) - 1e-9);
      expect(found[j]!).toBeLessThanOrEqual(Math.max(a, b) + 1e-9);
    });
  });
  it('has the same slope on both sides of a point', () => {
    frequency.slice(1, -1).forEach((f) => {
      const step = 1e-5;
      const [a, b, c] = interpolateSmooth(frequency, rough, f64(f * Math.exp(-step), f, f * Math.exp(step)));
      expect(Math.abs((c! - b!) / step - (b! - a!) / step)).toBeLessThan(0.5);
    });
  });
  it('is a straight line where its points lie on one, and nearly the curve of a smooth one', () => {
    const line = frequency.map((f) => 3 * Math.log2(f / 1000));
    interpolateSmooth(frequency, line, between).forEach((v, j) =>
      expect(v).toBeCloseTo(3 * Math.log2(between[j]! / 1000), 9),
    );
    const wave = (f: number) => Math.sin(Math.log2(f));
    const bent = interpolateSmooth(frequency, frequency.map(wave), between);
    // each point by its chord would be off by as much again as the eighth of the square of a step
    between.forEach((f, j) => expect(Math.abs(bent[j]! - wave(f))).toBeLessThan(0.004));
  });
});
