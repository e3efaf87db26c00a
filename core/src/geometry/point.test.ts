import { expect, it } from 'vitest';
import { distanceBetween, horizontalAim } from './point.js';

it('measures along all three axes', () => {
  expect(distanceBetween({ x: 1, y: 2, z: 3 }, { x: 3, y: 5, z: 9 })).toBeCloseTo(7, 12); // 2, 3, 6
  expect(distanceBetween({ x: 1, y: 2, z: 3 }, { x: 1, y: 2, z: 3 })).toBe(0);
});

it('points along x at 0 and along y a quarter turn on, with length 1 everywhere', () => {
  expect(horizontalAim(0)).toEqual({ x: 1, y: 0, z: 0 });
  expect(horizontalAim(Math.PI / 2).x).toBeCloseTo(0, 12);
  expect(horizontalAim(Math.PI / 2).y).toBeCloseTo(1, 12);
  for (const a of [0.3, 2, -4]) expect(Math.hypot(horizontalAim(a).x, horizontalAim(a).y)).toBeCloseTo(1, 12);
});
