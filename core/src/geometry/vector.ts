import type { Point } from './point.js';

export const dot = (a: Point, b: Point): number => a.x * b.x + a.y * b.y + a.z * b.z;

export const minus = (a: Point, b: Point): Point => ({ x: a.x - b.x, y: a.y - b.y, z: a.z - b.z });

export const cross = (a: Point, b: Point): Point => ({
  x: a.y * b.z - a.z * b.y,
  y: a.z * b.x - a.x * b.z,
  z: a.x * b.y - a.y * b.x,
});

export const lengthOf = (a: Point): number => Math.hypot(a.x, a.y, a.z);
