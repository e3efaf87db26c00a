import { extentOf, seatsOf } from '@pebble-hall/core/place';
import { layOutSpots, type SpotPlan } from '@pebble-hall/core/spots';
import type { Point } from '@pebble-hall/core/geometry';
import type { Project, Spot } from '@pebble-hall/core/project';

/** What spots can be laid out over: a seat by itself, or all seats of an area. */
export interface SeatChoice {
  id: string;
  name: string;
  ears: Point[];
}
export const seatChoices = ({ seats, audience, shape }: Project['place']): SeatChoice[] => [
  ...audience.map((a) => ({ id: a.id, name: a.name, ears: seatsOf(a, shape).map((s) => s.position) })),
  ...seats.map((s) => ({ id: s.id, name: s.name, ears: [s.position] })),
];

/** The ears of those who sit on what was chosen. */
export const earsOf = (place: Project['place'], chosen: readonly string[]): Point[] =>
  seatChoices(place).flatMap((c) => (chosen.includes(c.id) ? c.ears : []));

/** Which way the seats look: to the middle of the full-range loudspeakers ahead of them; degrees counter-clockwise from x. */
export function frontOf({ place }: Project, ears: { x: number; y: number }[]): number {
  const mean = (list: { x: number; y: number }[], axis: 'x' | 'y') =>
    list.reduce((sum, p) => sum + p[axis], 0) / list.length;
  const main = place.loudspeakers.filter((l) => l.role === 'full range').map((l) => l.position);
  if (main.length === 0 || ears.length === 0) return 180;
  // the first ones of a list are the front ones; surrounds would pull the front sideways
  const front = main.slice(0, Math.max(1, Math.min(3, main.length)));
  const [dx, dy] = [mean(front, 'x') - mean(ears, 'x'), mean(front, 'y') - mean(ears, 'y')];
  return (Math.atan2(dy, dx) * 180) / Math.PI;
}

/**
 * A project with the spots of a plan. Spots that have sweeps stay, the home spot first; the others give way.
 * @param newId makes an id for a spot
 */
export function withSpotPlan(
  project: Project,
  plan: SpotPlan,
  seatIds: string[],
  spread: number,
  newId: () => string,
): Project {
  const { place, sweeps } = project;
  const ears = earsOf(place, seatIds);
  const planned = layOutSpots({
    plan,
    ears,
    frontDeg: frontOf(project, ears),
    spread,
    bounds: extentOf(place.shape),
  });
  const taken = place.spots.filter((s) => sweeps.some((sweep) => sweep.spotId === s.id));
  const home = place.spots[0]!;
  const isKept = taken.includes(home);
  const fresh = planned.map(({ name, position }, i): Spot => ({
    // the home spot keeps its id, so that what refers to it stays true
    id: i === 0 && !isKept ? home.id : newId(),
    name,
    position,
    inAverage: true,
    weight: 1,
    surface: 'ear',
  }));
  const spots = isKept
    ? [home, ...taken.filter((s) => s !== home), ...fresh.slice(1)]
    : [fresh[0]!, ...taken, ...fresh.slice(1)];
  return { ...project, place: { ...place, spots } };
}

/** The project without a spot and its sweeps; the home spot stays. */
export function withoutSpot(project: Project, spotId: string): Project {
  if (project.place.spots[0]!.id === spotId) return project;
  return {
    ...project,
    place: { ...project.place, spots: project.place.spots.filter((s) => s.id !== spotId) },
    sweeps: project.sweeps.filter((s) => s.spotId !== spotId),
  };
}
