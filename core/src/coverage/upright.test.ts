import { expect, it } from 'vitest';
import { newPlace, USUAL_SIZE } from '../project/index.js';
import { inFrame } from './grid.js';
import { uprightFrame, uprightGrid } from './upright.js';

const { shape } = newPlace({ name: 'H', kind: 'hall', size: { x: 20, y: 12, z: 6 }, layoutId: 'none' });
const openAir = newPlace({
  name: 'F',
  kind: 'open air',
  size: USUAL_SIZE['open air'],
  layoutId: 'none',
}).shape;

it('lies between walls, floor and ceiling, along its bearing', () => {
  const grid = uprightGrid(shape, { x: 3, y: 5 }, 0, 2000);
  expect(grid.isIn.every((v) => v === 1)).toBe(true);
  expect(Math.abs(grid.columns / grid.rows - 20 / 6)).toBeLessThan(0.15);
  const xs = Array.from({ length: grid.points.length / 3 }, (_, i) => grid.points[3 * i]!);
  expect(Math.min(...xs)).toBeGreaterThanOrEqual(0);
  expect(Math.max(...xs)).toBeLessThanOrEqual(20);
  expect(grid.points[1]).toBe(5);
  // coordinates count from the point that it goes through
  expect(inFrame(grid.frame, { x: 2, y: 1.5 })).toEqual({ x: 5, y: 5, z: 1.5 });
});

it('turned by 45 degrees it is as long as the diagonal allows', () => {
  const grid = uprightGrid(shape, { x: 0, y: 0 }, 45, 2000);
  const long = (grid.columns - 1) * grid.step;
  expect(long).toBeGreaterThan(12 * Math.SQRT2 - 2 * grid.step);
  expect(long).toBeLessThanOrEqual(12 * Math.SQRT2);
  const { across } = uprightFrame({ x: 0, y: 0 }, 45);
  expect(across.x).toBeCloseTo(Math.SQRT1_2, 12);
});

it('tells apart what lies under a rising floor, and reaches some metres up outdoors', () => {
  const raked = uprightGrid({ ...shape, floorRise: 0.1 }, { x: 1, y: 6 }, 0, 2000);
  expect(raked.isIn.some((v) => v === 0)).toBe(true);
  const field = uprightGrid(openAir, { x: 1, y: 1 }, 0, 500);
  const high = Math.max(
    ...Array.from({ length: field.points.length / 3 }, (_, i) => field.points[3 * i + 2]!),
  );
  expect(high).toBeGreaterThan(4);
});

it('refuses a plane beside the place, and what is no number', () => {
  expect(() => uprightGrid(shape, { x: 3, y: 40 }, 0, 2000)).toThrow(/does not meet the place/);
  expect(() => uprightGrid(shape, { x: NaN, y: 4 }, 0, 2000)).toThrow(/place or bearing/);
});
