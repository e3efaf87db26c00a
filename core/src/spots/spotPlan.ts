import { distanceBetween, meanPoint, type Point } from '../geometry/index.js';

export interface PlannedSpot {
  name: string;
  position: Point;
}

export const SPOT_PLANS = ['Seat', 'Row', 'Block'] as const;
export type SpotPlan = (typeof SPOT_PLANS)[number];

/** Spots of each plan; odd, so that one is the home spot in the middle. */
export const SPOTS_IN_PLAN: Record<SpotPlan, number> = { Seat: 7, Row: 11, Block: 15 };

/** A place around the middle: along the row to the right, away from the front, and up; in spreads, or in halves of the seats' extent. */
type Offset = [name: string, right: number, back: number, up: number];

const SEAT: Offset[] = [
  ['Left of the head', -1, 0, 0],
  ['Right of the head', 1, 0, 0],
  ['Before the head', 0, -1, -0.3],
  ['Behind the head', 0, 0.8, 0.3],
  ['Above the ears', -0.4, 0.2, 0.8],
  ['Below the ears', 0.4, -0.3, -0.8],
];

/** Along the row by its extent, the rest by the spread; no two at one height in a line, so that no mode is met alike. */
const ROW: [name: string, along: number, back: number, up: number][] = [
  ['Far left', -1, 0, 0.2],
  ['Far right', 1, 0, -0.2],
  ['Half left', -0.5, 0.4, -0.4],
  ['Half right', 0.5, 0.4, 0.4],
  ['Before, left', -0.75, -1, 0],
  ['Before, middle', 0.1, -1, -0.5],
  ['Before, right', 0.75, -1, 0.3],
  ['Behind, left', -0.4, 1, 0.5],
  ['Behind, right', 0.4, 1, 0],
  ['Above the middle', -0.1, 0.2, 0.9],
];

const BLOCK: [name: string, along: number, deep: number, up: number][] = [
  ['Front left', -1, -1, 0],
  ['Front middle', 0.1, -1, 0.5],
  ['Front right', 1, -1, -0.4],
  ['Left', -1, 0.1, 0.6],
  ['Right', 1, -0.1, 0.2],
  ['Back left', -1, 1, -0.5],
  ['Back middle', -0.1, 1, 0.4],
  ['Back right', 1, 1, 0],
  ['Half front left', -0.5, -0.5, -0.6],
  ['Half front right', 0.5, -0.55, 0.3],
  ['Half back left', -0.55, 0.5, 0.2],
  ['Half back right', 0.5, 0.5, -0.3],
  ['Above the middle', 0.15, 0.1, 0.9],
  ['Below the middle', -0.15, -0.1, -0.9],
];

export interface SpotPlanRequest {
  plan: SpotPlan;
  /** ears of those who sit there, at least one; the first plan uses only the one nearest their middle */
  ears: Point[];
  /** azimuth from the seats to the front, degrees counter-clockwise from x */
  frontDeg: number;
  /** how far spots stand apart around a head, metres */
  spread: number;
  /** the room's corners, so that none lands in a wall */
  bounds: { least: Point; most: Point };
}

/** No spot is nearer to a wall, the floor or the ceiling than this. */
const CLEAR_M = 0.25;

/**
 * Spots of a plan in three dimensions around the ears of the seats: beside, before, behind, above and below. The home spot
 * comes first, at the seat nearest the middle of them all.
 * @throws RangeError without a seat, or for a spread that is not above 0
 */
export function layOutSpots({ plan, ears, frontDeg, spread, bounds }: SpotPlanRequest): PlannedSpot[] {
  if (ears.length === 0) throw new RangeError('layOutSpots: needs at least one seat');
  if (!(spread > 0)) throw new RangeError(`layOutSpots: spread must be above 0 m, got ${spread}`);
  const angle = (frontDeg * Math.PI) / 180;
  const front = { x: Math.cos(angle), y: Math.sin(angle) };
  const right = { x: front.y, y: -front.x };
  const middle = meanPoint(ears);
  const distance = (e: Point) => Math.hypot(e.x - middle.x, e.y - middle.y);
  const home = ears.reduce((a, b) => (distance(b) < distance(a) - 1e-9 ? b : a));
  const extent = (axis: { x: number; y: number }, centre: Point) =>
    Math.max(spread, ...ears.map((e) => Math.abs((e.x - centre.x) * axis.x + (e.y - centre.y) * axis.y)));
  const place = (centre: Point, rightM: number, backM: number, upM: number): Point => ({
    x: within(centre.x + rightM * right.x - backM * front.x, bounds.least.x, bounds.most.x),
    y: within(centre.y + rightM * right.y - backM * front.y, bounds.least.y, bounds.most.y),
    z: within(centre.z + upM, bounds.least.z, bounds.most.z),
  });
  const spots = {
    Seat: () =>
      SEAT.map(([name, r, b, u]) => ({ name, position: place(home, r * spread, b * spread, u * spread) })),
    Row: () => {
      const along = extent(right, middle);
      return ROW.map(([name, r, b, u]) => ({
        name,
        position: place(middle, r * along, b * spread, u * spread),
      }));
    },
    Block: () => {
      const [along, deep] = [extent(right, middle), extent(front, middle)];
      return BLOCK.map(([name, r, b, u]) => ({
        name,
        position: place(middle, r * along, b * deep, u * spread),
      }));
    },
  }[plan]();
  return [{ name: 'Home spot', position: { ...home } }, ...spots];
}

const within = (value: number, least: number, most: number) => {
  const clear = Math.min(CLEAR_M, (most - least) / 4);
  return Math.round(100 * Math.min(most - clear, Math.max(least + clear, value))) / 100;
};

/** Two spots nearer than this hear nearly the same: a third of the wave at 500 Hz. */
export const NEAR_SPOTS_M = 0.12;

/** Pairs of spots that stand so close that the second adds little, by index. */
export function tooClose(spots: Point[]): [number, number][] {
  return spots.flatMap((a, i) =>
    spots
      .slice(i + 1)
      .flatMap((b, k): [number, number][] => (distanceBetween(a, b) < NEAR_SPOTS_M ? [[i, i + 1 + k]] : [])),
  );
}
