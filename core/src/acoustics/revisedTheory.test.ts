import { expect, it } from 'vitest';
import { expectedFigures } from './index.js';

it('a hall of 20,000 m3 that rings for 2 s, at 20 m: the sums by hand', () => {
  // direct 0.25, reverberant 31,200 x 2 / 20,000 x e^-0.4 = 2.0914; of it within 80 ms 1 - e^-0.5528 = 0.4247
  const { g, c80, c50, d50 } = expectedFigures(20, 2, 20_000);
  expect(g).toBeCloseTo(10 * Math.log10(2.3414), 3);
  expect(c80).toBeCloseTo(10 * Math.log10((0.25 + 0.8882) / 1.2032), 2);
  // within 50 ms 1 - e^-0.3455 = 0.2921
  expect(d50).toBeCloseTo((0.25 + 0.6109) / 2.3414, 3);
  expect(c50).toBeCloseTo(10 * Math.log10(d50 / (1 - d50)), 9);
});

it('close to the source there is nothing but the direct sound; far away it falls by the decay alone', () => {
  expect(expectedFigures(0.1, 1, 1e9).g).toBeCloseTo(40, 3);
  const [near, far] = [expectedFigures(1000, 2, 1000), expectedFigures(1010, 2, 1000)];
  expect(near.g - far.g).toBeLessThan(10 * Math.log10(Math.E) * 0.2 + 0.1);
  expect(() => expectedFigures(0, 1, 100)).toThrow(/above zero/);
  expect(() => expectedFigures(1, Number.NaN, 100)).toThrow(/above zero/);
});
