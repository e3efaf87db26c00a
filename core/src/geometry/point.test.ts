import { expect, it } from 'vitest';
import { axesOf, distanceBetween, horizontalAim, meanPoint, pointAlong } from './point.js';

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

it('turns, pitches and rolls: ahead, left and up stay at right angles', () => {
  const plain = axesOf(0);
  expect(plain.ahead).toEqual({ x: 1, y: 0, z: 0 });
  expect(plain.left.y).toBe(1);
  expect(plain.up.z).toBe(1);
  // a quarter turn to the left, then looking down by 30 degrees
  const down = axesOf(90, -30);
  expect(down.ahead.y).toBeCloseTo(Math.cos(Math.PI / 6), 12);
  expect(down.ahead.z).toBeCloseTo(-0.5, 12);
  expect(down.left.x).toBeCloseTo(-1, 12);
  // rolled by a quarter turn, its left points down
  expect(axesOf(0, 0, 90).left.z).toBeCloseTo(-1, 12);
  const { ahead, left, up } = axesOf(37, 21, -14);
  const dot = (a: typeof ahead, b: typeof ahead) => a.x * b.x + a.y * b.y + a.z * b.z;
  for (const [a, b] of [
    [ahead, left],
    [left, up],
    [up, ahead],
  ] as const)
    expect(dot(a, b)).toBeCloseTo(0, 12);
  // right-handed: ahead x left = up
  expect(ahead.x * left.y - ahead.y * left.x).toBeCloseTo(up.z, 12);
  expect(pointAlong({ x: 1, y: 1, z: 1 }, plain, { ahead: 2, left: 3, up: -1 })).toEqual({
    x: 3,
    y: 4,
    z: 0,
  });
});

it('the middle of points lies between them on each axis; one is its own, none have none', () => {
  const points = [
    { x: 0, y: 1, z: 2 },
    { x: 4, y: -1, z: 2 },
    { x: 2, y: 3, z: 5 },
  ];
  expect(meanPoint(points)).toEqual({ x: 2, y: 1, z: 3 });
  expect(meanPoint(points.slice(1, 2))).toEqual(points[1]);
  expect(meanPoint([]).x).toBeNaN();
});
