import {
  areaOf,
  boundsOf,
  clipped,
  integralOver,
  signedArea,
  type Corner,
  type HalfPlane,
  type Point,
} from '../geometry/index.js';
import { USUAL_SCATTERING } from '../materials/index.js';
import type { PerOctave } from '../room/octaves.js';

/** A surface by its name, and what it does to sound, per octave from 63 Hz to 8 kHz. */
export interface Face {
  name: string;
  /** share that it swallows, 0 to 1 */
  absorption: PerOctave;
  /** of what is left, the share that goes everywhere and not as from a mirror, 0 to 1 */
  scattering: PerOctave;
  /** what it was said to be made of, by name; null where its numbers are its own */
  material: string | null;
}

/** A surface of which only its absorption is known: it scatters as panels and joints do. */
export const plainFace = (name: string, absorption: PerOctave): Face => ({
  name,
  absorption,
  scattering: USUAL_SCATTERING,
  material: null,
});

/** How the ceiling lies on the walls: level; rising along an axis to `highM`; or from both sides to a ridge along an axis. */
export type Ceiling =
  | { kind: 'flat' }
  | { kind: 'pitched'; along: 'x' | 'y'; highM: number }
  | { kind: 'ridged'; along: 'x' | 'y'; highM: number };

/** Walls upright over an outline. Heights count from z = 0. */
export interface Shape {
  /** corners in order, either way round, without crossing */
  outline: Corner[];
  /** height of the walls, where they are lowest; of what is drawn outdoors */
  heightM: number;
  /** the floor rises along x from z = 0 at x = 0, metres per metre */
  floorRise: number;
  ceiling: Ceiling;
  /** outdoors there is a floor only */
  isEnclosed: boolean;
  /** one per side, from its corner to the next */
  walls: Face[];
  floor: Face;
  roof: Face;
}

/** z = c0 + cx x + cy y */
export type Plane = [c0: number, cx: number, cy: number];

/** The planes of a ceiling, each with the part of the outline that it covers; null where that is all of it. */
export function roofPlanes({ outline, heightM, ceiling }: Shape): { plane: Plane; part: HalfPlane | null }[] {
  if (ceiling.kind === 'flat') return [{ plane: [heightM, 0, 0], part: null }];
  const { least, most } = boundsOf(outline);
  const { along, highM, kind } = ceiling;
  // a pitched ceiling rises along its axis, a ridged one across it
  const axis = kind === 'pitched' ? along : along === 'x' ? 'y' : 'x';
  const slope = (from: number, to: number): Plane => {
    const rise = (highM - heightM) / (to - from);
    const c0 = heightM - rise * from;
    return axis === 'x' ? [c0, rise, 0] : [c0, 0, rise];
  };
  if (kind === 'pitched') return [{ plane: slope(least[axis], most[axis]), part: null }];
  const at = (least[axis] + most[axis]) / 2;
  return [
    { plane: slope(least[axis], at), part: { axis, at, side: 'below' } },
    { plane: slope(most[axis], at), part: { axis, at, side: 'above' } },
  ];
}

export const floorPlane = ({ floorRise }: Pick<Shape, 'floorRise'>): Plane => [0, floorRise, 0];

export const heightOn = ([c0, cx, cy]: Plane, { x, y }: Corner): number => c0 + cx * x + cy * y;

export const floorAt = (shape: Pick<Shape, 'floorRise'>, at: Corner): number =>
  heightOn(floorPlane(shape), at);

/** Height of the ceiling over a point: of the lower plane where two meet. */
export const roofAt = (shape: Shape, at: Corner): number =>
  Math.min(...roofPlanes(shape).map(({ plane }) => heightOn(plane, at)));

/** Cubic metres between floor and ceiling. */
export const shapeVolume = (shape: Shape): number =>
  roofPlanes(shape).reduce((sum, { plane, part }) => {
    const under = part ? clipped(shape.outline, part) : shape.outline;
    return sum + integralOver(under, less(plane, floorPlane(shape)));
  }, 0);

const less = (a: Plane, b: Plane): Plane => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];

/** How far a shape reaches along each axis, and to its highest point. */
export function extentOf(shape: Shape): { least: Point; most: Point } {
  const { least, most } = boundsOf(shape.outline);
  const high = shape.ceiling.kind === 'flat' ? shape.heightM : Math.max(shape.heightM, shape.ceiling.highM);
  const floors = shape.outline.map((c) => floorAt(shape, c));
  return { least: { ...least, z: Math.min(...floors) }, most: { ...most, z: high } };
}

/** One flat face of a room, its corners in order. */
export interface Facet extends Face {
  kind: 'wall' | 'floor' | 'roof';
  corners: Point[];
}

/** All faces of a shape; outdoors the floor alone. */
export function facetsOf(shape: Shape): Facet[] {
  const { outline, walls, isEnclosed } = shape;
  const on = (plane: Plane) => (c: Corner) => ({ x: c.x, y: c.y, z: heightOn(plane, c) });
  const floor: Facet = { ...shape.floor, kind: 'floor', corners: outline.map(on(floorPlane(shape))) };
  if (!isEnclosed) return [floor];
  const roofs = roofPlanes(shape);
  const sides = outline.map((a, i): Facet => {
    const b = outline[(i + 1) % outline.length]!;
    const bottom = [a, b].map(on(floorPlane(shape)));
    const along = [b, ...ridgeBetween(shape, a, b), a];
    return {
      ...walls[i]!,
      kind: 'wall',
      corners: [...bottom, ...along.map((c) => ({ x: c.x, y: c.y, z: roofAt(shape, c) }))],
    };
  });
  const covers = roofs.flatMap(({ plane, part }): Facet[] => {
    const under = part ? clipped(outline, part) : outline;
    return under.length < 3 ? [] : [{ ...shape.roof, kind: 'roof', corners: under.map(on(plane)) }];
  });
  return [floor, ...sides, ...covers];
}

/** Where the ridge goes over the wall between two corners, if it does. */
function ridgeBetween(shape: Shape, a: Corner, b: Corner): Corner[] {
  const part = roofPlanes(shape)[0]!.part;
  if (!part) return [];
  const [from, to] = [a[part.axis] - part.at, b[part.axis] - part.at];
  if (from * to >= 0) return [];
  const t = from / (from - to);
  return [{ x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) }];
}

/** Square metres of a flat face (Newell's sum). */
export function facetArea({ corners }: Pick<Facet, 'corners'>): number {
  const sum = { x: 0, y: 0, z: 0 };
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length]!;
    sum.x += a.y * b.z - a.z * b.y;
    sum.y += a.z * b.x - a.x * b.z;
    sum.z += a.x * b.y - a.y * b.x;
  });
  return Math.hypot(sum.x, sum.y, sum.z) / 2;
}

/** The four sides of a box with one corner at the origin: front wall at x = 0, left wall at y = 0. */
export const rectangle = (x: number, y: number): Corner[] => [
  { x: 0, y: 0 },
  { x, y: 0 },
  { x, y },
  { x: 0, y },
];
export const RECTANGLE_WALLS = ['Left wall', 'Rear wall', 'Right wall', 'Front wall'] as const;

/**
 * Whether a shape is a box along the axes: then its modes can be computed. In the order of its corners, whichever it is.
 * @returns the walls at the least and the greatest x and y; null when it is none
 */
export function boxWalls(
  shape: Shape,
): { least: Record<'x' | 'y', Face>; most: Record<'x' | 'y', Face> } | null {
  const { outline, ceiling, floorRise, isEnclosed, walls } = shape;
  if (!isEnclosed || outline.length !== 4 || ceiling.kind !== 'flat' || floorRise !== 0) return null;
  const bounds = boundsOf(outline);
  const found: { least: Partial<Record<'x' | 'y', Face>>; most: Partial<Record<'x' | 'y', Face>> } = {
    least: {},
    most: {},
  };
  outline.forEach((a, i) => {
    const b = outline[(i + 1) % 4]!;
    for (const end of ['least', 'most'] as const)
      for (const axis of ['x', 'y'] as const)
        if (a[axis] === bounds[end][axis] && b[axis] === bounds[end][axis]) found[end][axis] = walls[i]!;
  });
  const { least, most } = found;
  if (!least.x || !least.y || !most.x || !most.y || !(Math.abs(signedArea(outline)) > 0)) return null;
  return {
    least: { x: least.x, y: least.y },
    most: { x: most.x, y: most.y },
  };
}

/** Square metres of floor, seen from above. */
export const floorArea = ({ outline }: Pick<Shape, 'outline'>): number => areaOf(outline);
