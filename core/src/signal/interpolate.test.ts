import { expect, it } from 'vitest';
import { interpolateLog } from './index.js';

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
