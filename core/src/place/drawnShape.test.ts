import { expect, it } from 'vitest';
import { drawnShape, plainFace, rectangle, shapeVolume, type Shape } from './index.js';

const face = (name: string) => plainFace(name, [0.1, 0.1, 0.1, 0.1, 0.1, 0.1, 0.1, 0.1]);
const shape: Shape = {
  outline: rectangle(6, 4),
  heightM: 3,
  floorRise: 0.02,
  isEnclosed: true,
  ceiling: { kind: 'pitched', along: 'x', highM: 4 },
  walls: ['a', 'b', 'c', 'd'].map(face),
  floor: face('Floor'),
  roof: face('Roof'),
};

it('gives every side of the new outline a wall, and the room its heights', () => {
  const gable = drawnShape(shape, [...rectangle(14, 9), { x: -2, y: 4.5 }], {
    heightM: 4,
    ceiling: { kind: 'ridged', along: 'x', highM: 6.5 },
  });
  expect(gable.walls.map((w) => w.name)).toEqual(['Wall 1', 'Wall 2', 'Wall 3', 'Wall 4', 'Wall 5']);
  expect(gable.floorRise).toBe(0);
  const box = drawnShape(shape, rectangle(14, 9), {
    heightM: 4,
    ceiling: { kind: 'ridged', along: 'x', highM: 6.5 },
  });
  // a box and a triangle on it
  expect(shapeVolume(box)).toBeCloseTo(14 * 9 * 4 + (14 * 9 * 2.5) / 2, 9);
});

it('keeps walls and ceiling where the drawing has none', () => {
  expect(drawnShape(shape, rectangle(5, 5), null)).toMatchObject({ heightM: 3, ceiling: shape.ceiling });
});
