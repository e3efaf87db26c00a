import { plainShape } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { stretched } from './stretched';

it('keeps the shape of an outline: every corner its share', () => {
  const shape = {
    ...plainShape('hall', { x: 10, y: 6, z: 4 }),
    outline: [
      { x: 2, y: 1 },
      { x: 12, y: 1 },
      { x: 7, y: 7 },
    ],
  };
  expect(stretched(shape, 'x', 20).outline.map((c) => c.x)).toEqual([2, 22, 12]);
  expect(stretched(shape, 'y', 3).outline.map((c) => c.y)).toEqual([1, 1, 4]);
  const line = { ...shape, outline: shape.outline.map((c) => ({ ...c, x: 1 })) };
  expect(stretched(line, 'x', 5)).toBe(line);
});
