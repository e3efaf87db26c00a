import { plainShape } from '@pebble-hall/core/project';
import { describe, expect, it } from 'vitest';
import { projectionOf, roundLength, VIEWS } from './projection';

const shape = plainShape('hall', { x: 20, y: 10, z: 5 });
const p = { x: 4, y: 7, z: 1.2 };

describe.each(VIEWS)('seen from %s', (view) => {
  const projection = projectionOf(shape, view);
  it('comes back to the point it came from, and keeps what it does not show', () => {
    const [u, v] = projection.at(p);
    const back = projection.under(u, v, p);
    for (const axis of ['x', 'y', 'z'] as const) expect(back[axis]).toBeCloseTo(p[axis], 9);
    const moved = projection.under(u + projection.scale, v, p);
    expect(moved[projection.axes[0]]).toBeCloseTo(p[projection.axes[0]] + 1, 9);
  });
  it('fits', () => {
    expect(projection.width).toBeLessThanOrEqual(560.001);
    expect(projection.height).toBeLessThanOrEqual(410.001);
  });
});

it('is no mirror image: who looks to the front, at the left, has the left side below; high is up', () => {
  expect(projectionOf(shape, 'above').at(p)).toEqual([112, 84]); // 3 of 10 m from the right side
  expect(projectionOf(shape, 'above').at({ ...p, y: 0 })[1]).toBe(280);
  const side = projectionOf(shape, 'side');
  expect(side.at({ ...p, z: 5 })[1]).toBe(0);
  expect(projectionOf(shape, 'front').axes).toEqual(['y', 'z']);
});

it.each([
  [1.3, 1],
  [2, 2],
  [4.9, 2],
  [7, 5],
  [30, 20],
  [0.4, 0.2],
])('of %f m shows a length of %f m', (most, length) => expect(roundLength(most)).toBeCloseTo(length, 12));
