import { expect, it } from 'vitest';
import { snapped, type SnapTo } from './index.js';

const to: SnapTo = {
  others: [{ x: 2, y: 1, z: 1.2 }],
  centre: 3,
  grid: 0.1,
  within: 0.08,
  axes: ['x', 'y'],
};

it('comes to rest in line with something near, and says so', () => {
  const { at, guides } = snapped({ x: 2.06, y: 1.83, z: 1.234 }, to);
  expect(at.x).toBe(2);
  expect(at.y).toBeCloseTo(1.8, 12); // nothing is near: the grid
  expect(at.z).toBe(1.234); // not moved along z
  expect(guides).toEqual([{ axis: 'x', at: 2, because: 'in line' }]);
});

it('comes to rest opposite of something, and on the centre line', () => {
  expect(snapped({ x: 4.5, y: 4.96, z: 0 }, to).guides).toEqual([{ axis: 'y', at: 5, because: 'opposite' }]);
  expect(snapped({ x: 4.5, y: 3.05, z: 0 }, to).at.y).toBe(3);
});

it('of two lines takes the nearer one; without a grid it stays where it is', () => {
  const two = { ...to, others: [...to.others, { x: 2.1, y: 9, z: 0 }] };
  expect(snapped({ x: 2.07, y: 7, z: 0 }, two).at.x).toBe(2.1);
  expect(snapped({ x: 6.123, y: 7.456, z: 0 }, { ...two, grid: 0 }).at).toEqual({ x: 6.123, y: 7.456, z: 0 });
});
