import { expect, it } from 'vitest';
import { groundPlane, GROUND_PLANE_DB } from './index.js';

it('tells both ways of the sound, and how far up the doubling holds', () => {
  // 3-4-5: 4 m along, source 3 m above the capsule's height of nothing worth speaking of
  const { directM, reflectedM, holdsToHz } = groundPlane({ x: 4, y: 0, z: 3 }, { x: 0, y: 0 }, 0.01, 343);
  expect(directM).toBeCloseTo(Math.hypot(4, 2.99), 9);
  expect(reflectedM).toBeCloseTo(Math.hypot(4, 3.01), 9);
  // there the two waves sum to 2 cos(pi/8) of one
  const late = (2 * Math.PI * holdsToHz * (reflectedM - directM)) / 343;
  const sumDb = 10 * Math.log10((1 + Math.cos(late)) ** 2 + Math.sin(late) ** 2);
  expect(GROUND_PLANE_DB - sumDb).toBeCloseTo(0.69, 2);
});

it('holds for ever when the source lies on the floor, too, and refuses one below it', () => {
  expect(groundPlane({ x: 4, y: 0, z: 0 }, { x: 0, y: 0 }, 0.01, 343).holdsToHz).toBeGreaterThan(1e9);
  expect(() => groundPlane({ x: 4, y: 0, z: -1 }, { x: 0, y: 0 }, 0.01, 343)).toThrow(/-1 m/);
});
