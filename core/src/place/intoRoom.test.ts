import { isWithin } from '../geometry/index.js';
import { expect, it } from 'vitest';
import { intoRoom, plainFace, rectangle, roofAt, type Shape } from './index.js';

const face = plainFace('face', Array<number>(8).fill(0.2));
const shape: Shape = {
  outline: rectangle(6, 4),
  heightM: 3,
  floorRise: 0,
  ceiling: { kind: 'flat' },
  isEnclosed: true,
  walls: [face, face, face, face],
  floor: face,
  roof: face,
};

it('leaves what is in the room where it is', () => {
  expect(intoRoom(shape, { x: 1, y: 2, z: 1.2 })).toEqual({ x: 1, y: 2, z: 1.2 });
});

it('brings what is behind a wall, the floor or the ceiling just in front of it', () => {
  expect(intoRoom(shape, { x: -1, y: 2, z: 1 })).toEqual({ x: 0.02, y: 2, z: 1 });
  expect(intoRoom(shape, { x: 6.3, y: 2, z: 1 }).x).toBeCloseTo(5.98, 9);
  expect(intoRoom(shape, { x: 1, y: 2, z: -4 }).z).toBeCloseTo(0.02, 9);
  expect(intoRoom(shape, { x: 1, y: 2, z: 40 }).z).toBeCloseTo(2.98, 9);
});

it('whatever the outline and the ceiling, and outdoors however high', () => {
  const l: Shape = {
    ...shape,
    outline: [
      { x: 0, y: 0 },
      { x: 6, y: 0 },
      { x: 6, y: 2 },
      { x: 3, y: 2 },
      { x: 3, y: 5 },
      { x: 0, y: 5 },
    ],
    walls: Array.from({ length: 6 }, () => face),
    ceiling: { kind: 'pitched', along: 'x', highM: 4 },
  };
  for (const at of [
    { x: 5, y: 4, z: 9 },
    { x: 3.5, y: 2.4, z: 1 },
    { x: -2, y: -2, z: 1 },
    { x: 9, y: 9, z: -1 },
  ]) {
    const inside = intoRoom(l, at);
    expect(isWithin(l.outline, inside)).toBe(true);
    expect(inside.z).toBeGreaterThan(0);
    expect(inside.z).toBeLessThan(roofAt(l, inside));
  }
  expect(intoRoom({ ...shape, isEnclosed: false }, { x: 1, y: 1, z: 12 }).z).toBe(12);
});
