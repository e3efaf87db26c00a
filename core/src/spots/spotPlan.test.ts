import { describe, expect, it } from 'vitest';
import { layOutSpots, NEAR_SPOTS_M, SPOT_PLANS, SPOTS_IN_PLAN, tooClose } from './index.js';

const size = { x: 5.6, y: 4.1, z: 2.6 };
const sofa = [1.2, 1.72, 2.25].map((y) => ({ x: 3.6, y, z: 1.14 }));
const bounds = { least: { x: 0, y: 0, z: 0 }, most: size };
const request = { ears: sofa, frontDeg: 180, spread: 0.4, bounds };

describe.each(SPOT_PLANS)('plan %s', (plan) => {
  it.each([0.15, 0.4, 0.6])(
    'with a spread of %f m has its spots, apart from each other, within the room',
    (spread) => {
      const spots = layOutSpots({ ...request, plan, spread });
      expect(spots).toHaveLength(SPOTS_IN_PLAN[plan]);
      expect(new Set(spots.map((s) => s.name)).size).toBe(spots.length);
      expect(tooClose(spots.map((s) => s.position))).toEqual([]);
      for (const { position } of spots) {
        for (const axis of ['x', 'y', 'z'] as const) {
          expect(position[axis]).toBeGreaterThanOrEqual(0.25);
          expect(position[axis]).toBeLessThanOrEqual(size[axis] - 0.25);
        }
      }
    },
  );
  it('begins at the seat in the middle, and spreads in all three dimensions', () => {
    const spots = layOutSpots({ ...request, plan });
    expect(spots[0]).toEqual({ name: 'Home spot', position: sofa[1] });
    for (const axis of ['x', 'y', 'z'] as const) {
      const values = spots.map((s) => s.position[axis]);
      expect(Math.max(...values) - Math.min(...values), axis).toBeGreaterThan(0.4);
    }
  });
});

it('knows left from right and before from behind, whichever way the seats face', () => {
  const find = (frontDeg: number, name: string) =>
    layOutSpots({ ...request, plan: 'Seat', frontDeg }).find((s) => s.name === name)!.position;
  // facing towards smaller x, left is towards smaller y
  expect(find(180, 'Left of the head').y).toBeLessThan(1.72);
  expect(find(180, 'Before the head').x).toBeLessThan(3.6);
  expect(find(0, 'Left of the head').y).toBeGreaterThan(1.72);
  expect(find(90, 'Before the head').y).toBeGreaterThan(1.72);
});

it('reaches along the whole row and over the whole block', () => {
  const row = layOutSpots({ ...request, plan: 'Row' }).map((s) => s.position.y);
  expect([Math.min(...row), Math.max(...row)]).toEqual([expect.closeTo(1.19, 1), expect.closeTo(2.25, 1)]);
  const ears = [...sofa, { x: 2.7, y: 3.3, z: 1.14 }, { x: 2.7, y: 0.65, z: 1.14 }];
  const block = layOutSpots({ ...request, ears, plan: 'Block' }).map((s) => s.position);
  expect(Math.max(...block.map((p) => p.y)) - Math.min(...block.map((p) => p.y))).toBeGreaterThan(2.2);
});

it('keeps away from walls, and refuses what cannot be laid out', () => {
  const corner = layOutSpots({ ...request, ears: [{ x: 5.5, y: 0.1, z: 1.1 }], plan: 'Seat' });
  expect(Math.max(...corner.slice(1).map((s) => s.position.x))).toBeLessThanOrEqual(5.35);
  expect(() => layOutSpots({ ...request, ears: [], plan: 'Row' })).toThrow(/one seat/);
  expect(() => layOutSpots({ ...request, spread: 0, plan: 'Row' })).toThrow(/spread/);
});

it('finds spots that stand too close', () => {
  const at = (x: number) => ({ x, y: 1, z: 1 });
  expect(tooClose([at(1), at(2), at(1 + NEAR_SPOTS_M * 0.9)])).toEqual([[0, 2]]);
});
