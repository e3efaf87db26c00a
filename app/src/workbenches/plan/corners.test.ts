import { newPlace, USUAL_SIZE } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { WALLS } from '../../drawing';
import { ownerOf, withCorner, withCornerAfter, withoutCorner } from './corners';

const place = newPlace({ name: 'H', kind: 'hall', size: USUAL_SIZE.hall, layoutId: 'mains' });

it('moves a corner of the walls, and one of an area', () => {
  expect(withCorner(place, `${WALLS} 2`, { x: 20.00049, y: 12 }).shape.outline[2]).toEqual({ x: 20, y: 12 });
  const next = withCorner(place, 'audience-1 0', { x: 6, y: 2 });
  expect(next.audience[0]!.outline[0]).toEqual({ x: 6, y: 2 });
  expect(next.shape).toBe(place.shape);
  expect(ownerOf(place, 'audience-1 3')).toMatchObject({ owner: 'audience-1', nth: 3 });
});

it('adds a corner in the middle of a wall, whose halves are both what it was, and takes it away again', () => {
  const more = withCornerAfter(place, `${WALLS} 3`);
  expect(more.shape.outline).toHaveLength(5);
  expect(more.shape.outline[4]).toEqual({ x: 0, y: 7 });
  expect(more.shape.walls.map((w) => w.name)).toEqual([
    'Left wall',
    'Rear wall',
    'Right wall',
    'Front wall',
    'Front wall',
  ]);
  expect(withoutCorner(more, `${WALLS} 4`).shape).toEqual(place.shape);
});

it('never leaves fewer than three corners', () => {
  const three = withoutCorner(place, `${WALLS} 0`);
  expect(three.shape.outline).toHaveLength(3);
  expect(three.shape.walls).toHaveLength(3);
  expect(withoutCorner(three, `${WALLS} 0`)).toBe(three);
});
