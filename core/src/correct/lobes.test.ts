import { expect, it } from 'vitest';
import { logGrid } from '../signal/index.js';
import { lobes } from './lobes.js';

const grid = logGrid(20, 20000, 48);
/** A Gaussian over log frequency: as high as asked, half as high half the width away. */
const bump = (at: number, height: number, width: number) =>
  grid.map(
    (f) => height * Math.exp(-Math.LN2 * (Math.log2(f / at) / (width / 2)) ** 2) - 1e-3 * Math.sign(height),
  );

it('finds stretches of one sign by their area: where, how high, how wide', () => {
  const values = bump(1000, 6, 0.5).map((v, i) => v + bump(100, -9, 1)[i]!);
  const [first, second] = lobes(grid, values);
  expect(first!.at / 100).toBeCloseTo(1, 1);
  expect(first!.height).toBeCloseTo(-9, 1);
  expect(first!.width).toBeCloseTo(1, 0);
  expect(second!.at / 1000).toBeCloseTo(1, 1);
  expect(second!.height).toBeCloseTo(6, 1);
  expect(Math.abs(second!.width - 0.5)).toBeLessThan(0.1);
});

it('has nothing to say of nothing', () => {
  expect(lobes(grid, new Float64Array(grid.length))).toEqual([]);
});
