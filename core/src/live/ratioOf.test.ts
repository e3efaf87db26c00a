import { expect, it } from 'vitest';
import { ratioOf } from './index.js';

it('a curve over another is the difference of their levels and of their phases', () => {
  const above = { re: Float64Array.of(0, 2), im: Float64Array.of(2, 0) };
  const below = { re: Float64Array.of(1, 0), im: Float64Array.of(0, 0) };
  const { levelDb, phaseDeg } = ratioOf(above, below);
  expect(levelDb[0]).toBeCloseTo(6.0206, 4);
  expect(phaseDeg[0]).toBeCloseTo(90, 10);
  // over nothing there is nothing to be said
  expect(Number.isFinite(levelDb[1]!)).toBe(false);
});
