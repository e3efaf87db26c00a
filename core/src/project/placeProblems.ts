import {
  areaOf,
  crossingSides,
  distanceBetween,
  distanceToSides,
  isWithin,
  type Corner,
  type Point,
} from '../geometry/index.js';
import { boxesOf, floorAt, roofAt, seatsOf, shapeVolume, type Shape } from '../place/index.js';
import type { ProcessorProfile } from '../processing/index.js';
import type { Place } from './types.js';

/** Something about a place that cannot be, or hardly: what, and which things of it. */
export type PlaceProblem =
  | { kind: 'walls cross'; corners: number[] }
  | { kind: 'no volume' }
  | { kind: 'ceiling below floor' }
  | { kind: 'outside'; what: 'seat' | 'spot' | 'loudspeaker' | 'area'; ids: string[]; count: number }
  | { kind: 'in the wall'; ids: string[] }
  | { kind: 'same place'; ids: [string, string] }
  | { kind: 'output shared'; output: number; ids: string[] }
  | { kind: 'no such output'; outputs: number; ids: string[] }
  | { kind: 'too many seats'; ids: string[] };

/** Cubic metres, or outdoors square metres, below which there is no place. */
const LEAST = 0.01;
/** A box that stands freely is no nearer to a wall than this with its middle. */
const IN_WALL_M = 0.03;
/** Two loudspeakers, or two seats, that are nearer than this are one twice. */
const SAME_M = 0.02;

/** All that is wrong with a place and its channels; nothing where all is well. */
export function placeProblems(place: Place, { outputs }: Pick<ProcessorProfile, 'outputs'>): PlaceProblem[] {
  const { shape, loudspeakers } = place;
  const found: PlaceProblem[] = [];
  const crossing = crossingSides(shape.outline);
  if (crossing.length > 0) found.push({ kind: 'walls cross', corners: [...new Set(crossing.flat())] });
  const extent = shape.isEnclosed ? shapeVolume(shape) : areaOf(shape.outline);
  if (!(extent > LEAST)) found.push({ kind: 'no volume' });
  if (shape.isEnclosed && shape.outline.some((c) => roofAt(shape, c) <= floorAt(shape, c)))
    found.push({ kind: 'ceiling below floor' });
  found.push(...outside(place));
  const inWall = loudspeakers.filter(
    (l) =>
      shape.isEnclosed &&
      l.mount !== 'in the wall' &&
      boxesOf(l).some((b) => isIn(shape, b.position) && toFaces(shape, b.position) < IN_WALL_M),
  );
  if (inWall.length > 0) found.push({ kind: 'in the wall', ids: inWall.map((l) => l.id) });
  loudspeakers.forEach((a, i) => {
    for (const b of loudspeakers.slice(i + 1))
      if (distanceBetween(a.position, b.position) < SAME_M)
        found.push({ kind: 'same place', ids: [a.id, b.id] });
  });
  const fitted = loudspeakers.filter((l) => l.fitted);
  for (const output of new Set(fitted.map((l) => l.output))) {
    const ids = fitted.filter((l) => l.output === output).map((l) => l.id);
    if (ids.length > 1) found.push({ kind: 'output shared', output, ids });
  }
  const beyond = fitted.filter((l) => l.output > outputs).map((l) => l.id);
  if (beyond.length > 0) found.push({ kind: 'no such output', outputs, ids: beyond });
  return found;
}

/** Whether a point lies within the walls, above the floor and below the ceiling. */
const isIn = (shape: Shape, p: Point): boolean =>
  isWithin(shape.outline, p) &&
  p.z >= floorAt(shape, p) - 0.005 &&
  (!shape.isEnclosed || p.z <= roofAt(shape, p) + 0.005);

const toFaces = (shape: Shape, p: Point): number =>
  Math.min(distanceToSides(shape.outline, p), p.z - floorAt(shape, p), roofAt(shape, p) - p.z);

/** Of many, so many are named. */
const NAMED = 20;

function outside({ shape, seats, spots, loudspeakers, audience }: Place): PlaceProblem[] {
  const out: PlaceProblem[] = [];
  const tell = (what: 'seat' | 'spot' | 'loudspeaker' | 'area', ids: string[]) => {
    if (ids.length > 0) out.push({ kind: 'outside', what, ids: ids.slice(0, NAMED), count: ids.length });
  };
  const away = (list: { id: string; position: Point }[]) =>
    list.filter((t) => !isIn(shape, t.position)).map((t) => t.id);
  tell('seat', away(seats));
  tell('spot', away(spots));
  tell(
    'loudspeaker',
    loudspeakers.filter((l) => boxesOf(l).some((b) => !isIn(shape, b.position))).map((l) => l.id),
  );
  const many: string[] = [];
  const areas = audience.filter((a) => {
    try {
      return (
        a.outline.some(
          (c: Corner) => !isWithin(shape.outline, c) && distanceToSides(shape.outline, c) > 0.01,
        ) || seatsOf(a, shape).some((s) => !isIn(shape, s.position))
      );
    } catch {
      many.push(a.id);
      return false;
    }
  });
  tell(
    'area',
    areas.map((a) => a.id),
  );
  if (many.length > 0) out.push({ kind: 'too many seats', ids: many });
  return out;
}
