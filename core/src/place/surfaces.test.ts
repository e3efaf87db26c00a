import { expect, it } from 'vitest';
import { plainFace, rectangle, surfacesOf, withSurface, type Shape } from './index.js';

const absorption = Array.from({ length: 8 }, () => 0.2);
const shape: Shape = {
  outline: rectangle(8, 6),
  heightM: 3,
  floorRise: 0,
  isEnclosed: true,
  ceiling: { kind: 'ridged', along: 'x', highM: 5 },
  walls: ['a', 'b', 'c', 'd'].map((name) => plainFace(name, absorption)),
  floor: plainFace('floor', absorption),
  roof: plainFace('roof', absorption),
};

it('surfaces have the areas of their faces: both slopes of a roof are one, gables reach up to the ridge', () => {
  const areas = Object.fromEntries(surfacesOf(shape).map((s) => [s.name, s.area]));
  expect(areas['floor']).toBeCloseTo(48, 9);
  expect(areas['a']).toBeCloseTo(24, 9);
  expect(areas['b']).toBeCloseTo(6 * 3 + 6, 9);
  expect(areas['roof']).toBeCloseTo(2 * 8 * Math.hypot(3, 2), 9);
  expect(surfacesOf({ ...shape, isEnclosed: false }).map((s) => s.name)).toEqual(['floor']);
});

it('one surface is changed, and nothing else', () => {
  const named = (name: string) => (face: Shape['floor']) => ({ ...face, name });
  expect(withSurface(shape, 2, named('x')).walls.map((w) => w.name)).toEqual(['a', 'b', 'x', 'd']);
  expect(withSurface(shape, 'roof', named('x'))).toEqual({ ...shape, roof: { ...shape.roof, name: 'x' } });
  expect(shape.roof.name).toBe('roof');
});
