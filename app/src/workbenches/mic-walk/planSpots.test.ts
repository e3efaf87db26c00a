import { expect, it } from 'vitest';
import { netLoftProject } from '../../../../demo/netLoftProject';
import type { Project, Sweep } from '@pebble-hall/core/project';
import { frontOf, withoutSpot, withSpotPlan } from './planSpots';

const project = netLoftProject();
const sofa = ['sofa-left', 'sofa-middle', 'sofa-right'];
let count = 0;
const newId = () => `new-${++count}`;
const swept = (...spotIds: string[]): Project => ({
  ...project,
  sweeps: spotIds.map((spotId) => ({ spotId, loudspeakerId: 'left' }) as Sweep),
});

it('looks to the front loudspeakers', () => {
  const ears = project.place.seats.slice(0, 3).map((s) => s.position);
  expect(Math.abs(Math.abs(frontOf(project, ears)) - 180)).toBeLessThan(10);
});

it('lays out a plan in place of spots that have nothing', () => {
  const { spots } = withSpotPlan(project, 'Row', sofa, 0.3, newId).place;
  expect(spots).toHaveLength(11);
  expect(spots[0]!.id).toBe(project.place.spots[0]!.id);
  expect(spots.every((s) => s.weight === 1 && s.inAverage)).toBe(true);
});

it('keeps spots that have sweeps, the home spot where it was', () => {
  const [home, second] = project.place.spots;
  const { spots } = withSpotPlan(swept(home!.id, second!.id), 'Seat', sofa, 0.3, newId).place;
  expect(spots.slice(0, 2)).toEqual([home, second]);
  expect(spots).toHaveLength(8);
  const moved = withSpotPlan(swept(second!.id), 'Seat', sofa, 0.3, newId).place.spots;
  expect(moved[0]!.name).toBe('Home spot');
  expect(moved).toContainEqual(second);
});

it('takes a spot away with its sweeps, but never the home spot', () => {
  const [home, second] = project.place.spots;
  const all = swept(home!.id, second!.id);
  const without = withoutSpot(all, second!.id);
  expect(without.place.spots).not.toContainEqual(second);
  expect(without.sweeps).toHaveLength(1);
  expect(withoutSpot(all, home!.id)).toBe(all);
});
