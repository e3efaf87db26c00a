import type { Corner, Point } from '../geometry/index.js';
import { FormatError } from '../formats/index.js';

/** Faces of one name, three corners each, nine numbers a face, in the units of the file. */
export interface DrawnSurface {
  name: string;
  triangles: Float64Array;
}

/** A line through points, three numbers each, in the units of the file. */
export interface DrawnLine {
  name: string;
  points: Float64Array;
  isClosed: boolean;
}

/** What a file of somebody else's drawing holds, as far as it is understood. */
export interface Model {
  format: 'OBJ' | 'glTF' | 'DXF';
  surfaces: DrawnSurface[];
  lines: DrawnLine[];
  /** metres in one unit of the file; null where it does not say */
  unitM: number | null;
  /** the axis that points up; null where the format does not say */
  up: Up | null;
  /** what the file holds beside, and was left out */
  left: { what: string; count: number }[];
}

export type Up = 'y' | 'z';

/** More is no drawing to lay under a plan, and would make every view slow. */
export const MOST_TRIANGLES = 500_000;
export const MOST_LINE_POINTS = 500_000;
/** Bytes of a file with a model. */
export const MOST_MODEL_BYTES = 100e6;

/** How many faces there are. */
export const triangleCount = ({ surfaces }: Pick<Model, 'surfaces'>): number =>
  surfaces.reduce((sum, s) => sum + s.triangles.length / 9, 0);

const thousands = (n: number) => Math.round(n).toLocaleString('en');

/** @throws FormatError that says how many there are, and what to do */
export function needFewer(triangles: number): void {
  if (triangles > MOST_TRIANGLES)
    throw new FormatError(
      `The model has ${thousands(triangles)} faces; up to ${thousands(MOST_TRIANGLES)} are taken. ` +
        'Save it without furniture and fittings, or reduced, and lay that under.',
    );
}

/**
 * A model as its reader found it, held against what a drawing can be.
 * @throws FormatError where nothing can be drawn, a corner is no place, or there is too much
 */
export function checkedModel(model: Model): Model {
  needFewer(triangleCount(model));
  const linePoints = model.lines.reduce((sum, l) => sum + l.points.length / 3, 0);
  if (linePoints > MOST_LINE_POINTS)
    throw new FormatError(
      `The lines have ${thousands(linePoints)} points; up to ${thousands(MOST_LINE_POINTS)} are taken. ` +
        'Save only the layers with walls, stage and seats.',
    );
  const surfaces = model.surfaces.filter((s) => s.triangles.length > 0);
  const lines = model.lines.filter((l) => l.points.length >= 6);
  for (const { name, numbers } of [
    ...surfaces.map((s) => ({ name: s.name, numbers: s.triangles })),
    ...lines.map((l) => ({ name: l.name, numbers: l.points })),
  ])
    for (const v of numbers)
      if (!Number.isFinite(v))
        throw new FormatError(
          `“${name}” refers to a corner that is not there, or is no number: the file is damaged or cut off. Save it again.`,
        );
  if (surfaces.length === 0 && lines.length === 0) {
    const beside = model.left.map((l) => `${l.count} ${l.what}`).join(', ');
    throw new FormatError(
      `The ${model.format} file holds no faces and no lines that can be drawn${beside ? ` (only ${beside})` : ''}.`,
    );
  }
  return { ...model, surfaces, lines };
}

/** Every number of a model, in threes. */
export function* pointsOf({ surfaces, lines }: Pick<Model, 'surfaces' | 'lines'>): Generator<Float64Array> {
  for (const s of surfaces) yield s.triangles;
  for (const l of lines) yield l.points;
}

/** Where a model is put: which axis points up in it, how large a unit is, how far it is turned, where its middle comes to lie. */
export interface ModelPose {
  up: Up;
  unitM: number;
  /** about the vertical, counter-clockwise seen from above */
  turnDeg: number;
  /** where the middle of the model's lowest level comes to lie */
  at: Point;
}

/** The least and the greatest of each axis with z up, in units of the file. */
export function modelBounds(model: Pick<Model, 'surfaces' | 'lines'>, up: Up): { least: Point; most: Point } {
  const least = [Infinity, Infinity, Infinity];
  const most = [-Infinity, -Infinity, -Infinity];
  for (const numbers of pointsOf(model))
    for (let i = 0; i < numbers.length; i++) {
      const axis = i % 3;
      least[axis] = Math.min(least[axis]!, numbers[i]!);
      most[axis] = Math.max(most[axis]!, numbers[i]!);
    }
  // with y up, x stays, y becomes z and z becomes -y: turned, not mirrored
  return up === 'z'
    ? { least: pointFrom(least), most: pointFrom(most) }
    : {
        least: { x: least[0]!, y: -most[2]!, z: least[1]! },
        most: { x: most[0]!, y: -least[2]!, z: most[1]! },
      };
}

const pointFrom = ([x, y, z]: number[]): Point => ({ x: x!, y: y!, z: z! });

/**
 * From coordinates of the file to metres in the place.
 * @param bounds of the model with `pose.up`, by `modelBounds`
 */
export function intoPlace(
  { up, unitM, turnDeg, at }: ModelPose,
  { least, most }: { least: Point; most: Point },
): (x: number, y: number, z: number) => Point {
  const [mx, my] = [(least.x + most.x) / 2, (least.y + most.y) / 2];
  const lay = laidAt({ turnDeg, at });
  return (x, y, z) => {
    const [px, py, pz] = up === 'z' ? [x, y, z] : [x, -z, y];
    return lay(unitM * (px - mx), unitM * (py - my), unitM * (pz - least.z));
  };
}

/** Cosine and sine of degrees, exact for quarter turns. */
function quarterly(deg: number): [number, number] {
  const quarter = deg / 90;
  if (Number.isInteger(quarter)) {
    const k = ((quarter % 4) + 4) % 4;
    return [[1, 0, -1, 0][k]!, [0, 1, 0, -1][k]!];
  }
  const rad = (deg * Math.PI) / 180;
  return [Math.cos(rad), Math.sin(rad)];
}

/** All numbers of a list of triples through a change of place. */
export function movedTriples(
  numbers: ArrayLike<number>,
  move: (x: number, y: number, z: number) => Point,
): Float64Array {
  const out = new Float64Array(numbers.length);
  for (let i = 0; i + 2 < numbers.length; i += 3) {
    const p = move(numbers[i]!, numbers[i + 1]!, numbers[i + 2]!);
    out[i] = p.x;
    out[i + 1] = p.y;
    out[i + 2] = p.z;
  }
  return out;
}

/** A model in metres, z up, where it lies in the place. */
export function placedModel(model: Model, pose: ModelPose): Pick<Model, 'surfaces' | 'lines'> {
  const move = intoPlace(pose, modelBounds(model, pose.up));
  return {
    surfaces: model.surfaces.map((s) => ({ name: s.name, triangles: movedTriples(s.triangles, move) })),
    lines: model.lines.map((l) => ({ ...l, points: movedTriples(l.points, move) })),
  };
}

/** Units that drawings come in, by what people call them, and their metres. */
export const DRAWING_UNITS = { mm: 0.001, cm: 0.01, in: 0.0254, ft: 0.3048, m: 1 } as const;

/** No place to measure in is larger, nor smaller, metres. */
const LIKELY_M = { least: 2.5, most: 250 };

/** The unit in which a model has the size of a place: metres where that fits, else the first of millimetres, centimetres, feet and inches that does. */
export function likelyUnitM(model: Pick<Model, 'surfaces' | 'lines'>): number {
  const { least, most } = modelBounds(model, 'z');
  const size = Math.max(most.x - least.x, most.y - least.y, most.z - least.z);
  const fits = (unitM: number) => unitM * size >= LIKELY_M.least && unitM * size <= LIKELY_M.most;
  return [1, 0.001, 0.01, 0.3048, 0.0254].find(fits) ?? 1;
}

/** The axis along which a model is least high: rooms are wider than high. */
export function likelyUp(model: Pick<Model, 'surfaces' | 'lines'>): Up {
  const { least, most } = modelBounds(model, 'z');
  return most.z - least.z <= most.y - least.y ? 'z' : 'y';
}

/**
 * From a drawing that is not turned, its middle at the origin, to where it is laid.
 * @param laid degrees counter-clockwise seen from above, and where its middle comes to lie
 */
export function laidAt({
  turnDeg,
  at,
}: Pick<ModelPose, 'turnDeg' | 'at'>): (x: number, y: number, z: number) => Point {
  const [cos, sin] = quarterly(turnDeg);
  return (x, y, z) => ({ x: at.x + cos * x - sin * y, y: at.y + sin * x + cos * y, z: at.z + z });
}

/** Corners of an outline that was found in a drawing, where the drawing is laid, to the millimetre. */
export function laidOutline(corners: readonly Corner[], laid: Pick<ModelPose, 'turnDeg' | 'at'>): Corner[] {
  const lay = laidAt(laid);
  const mm = (m: number) => Math.round(1000 * m) / 1000;
  return corners.map((c) => {
    const { x, y } = lay(c.x, c.y, 0);
    return { x: mm(x), y: mm(y) };
  });
}
