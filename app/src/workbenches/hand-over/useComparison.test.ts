import { expect, it } from 'vitest';
import { differenceOf, grid } from './useComparison';

it('finds the largest difference within the span only, and its mean square', () => {
  const predicted = grid.map(() => -10);
  const verified = grid.map((f) => (f > 900 && f < 1100 ? -9 : f < 40 ? 20 : -10));
  const got = differenceOf(predicted, verified, { from: 100, to: 10000 });
  expect(got.worstDb).toBeCloseTo(1, 1);
  expect(got.worstAt / 1000).toBeCloseTo(1, 1);
  expect(got.rmsDb).toBeGreaterThan(0.1);
  expect(got.rmsDb).toBeLessThan(0.4);
});
