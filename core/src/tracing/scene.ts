import { dot, type Point } from '../geometry/index.js';
import { needAbove, needFinite, needWhole, needWithin } from '../limits/index.js';
import { OCTAVES, type PerOctave } from '../room/index.js';
import { planeThrough, ROW, triangleRow, triangulated } from './triangles.js';
import { treeOf, type Tree } from './tree.js';

/** A flat face as sound meets it, from either side. */
export interface TracedFace {
  /** in order, either way round */
  corners: readonly Point[];
  /** share of the energy that is swallowed, per octave, 0 to 1 */
  absorption: PerOctave;
  /** of what is left, the share that goes everywhere and not as from a mirror, per octave, 0 to 1 */
  scattering: PerOctave;
}

/** Faces ready to be traced: flat arrays, so that a worker gets them as they are. */
export interface Scene {
  /** of each triangle, in the order of the tree's leaves, `ROW` numbers: see `triangleRow` */
  triangles: Float64Array;
  /** of each triangle, in that order: its face */
  faceOf: Int32Array;
  /** of each face: unit normal, 3 numbers; square metres; per octave what it swallows and scatters, 8 numbers each */
  normals: Float64Array;
  areas: Float64Array;
  absorption: Float64Array;
  scattering: Float64Array;
  /** whether nothing stands between any two points inside: all corners lie on one side of every face */
  isConvex: boolean;
  tree: Tree;
  /** how far it reaches */
  least: Point;
  most: Point;
}

const MOST_FACES = 200_000;
const MOST_CORNERS = 10_000;
/** Corners may lie so far beyond a plane and the scene still count as convex, as a share of its size. */
const CONVEX = 1e-6;

/**
 * Makes faces ready to be traced.
 * @throws RangeError for no face or too many, corners that are no numbers, coefficients beyond 0 to 1, a face without an area
 */
export function sceneOf(faces: readonly TracedFace[]): Scene {
  needWhole('sceneOf', 'number of faces', faces.length, 1, MOST_FACES);
  const planes = faces.map((face, f) => checkedPlane(face, f));
  const perOctave = (what: 'absorption' | 'scattering') =>
    Float64Array.from(faces.flatMap((face) => OCTAVES.map((_, o) => face[what][o]!)));
  const triangles = faces.flatMap(({ corners }, face) =>
    triangulated(corners, planes[face]!.n).flatMap((corners) => {
      const row = triangleRow(corners);
      return row ? [{ face, row, box: boxAround(corners) }] : [];
    }),
  );
  const tree = treeOf(Float64Array.from(triangles.flatMap((t) => t.box)));
  const rows = new Float64Array(ROW * triangles.length);
  tree.order.forEach((t, i) => rows.set(triangles[t]!.row, ROW * i));
  const corners = faces.flatMap((f) => f.corners);
  const [x0, y0, z0, x1, y1, z1] = boxAround(corners);
  const size = Math.hypot(x1! - x0!, y1! - y0!, z1! - z0!);
  return {
    triangles: rows,
    faceOf: tree.order.map((t) => triangles[t]!.face),
    normals: Float64Array.from(planes.flatMap(({ n }) => [n.x, n.y, n.z])),
    areas: Float64Array.from(planes, (p) => p.area),
    absorption: perOctave('absorption'),
    scattering: perOctave('scattering'),
    isConvex: planes.every((plane) => isOneSided(plane, corners, CONVEX * size)),
    tree,
    least: { x: x0!, y: y0!, z: z0! },
    most: { x: x1!, y: y1!, z: z1! },
  };
}

function checkedPlane({ corners, absorption, scattering }: TracedFace, f: number) {
  needWithin('sceneOf', `number of corners of face ${f}`, corners.length, 3, MOST_CORNERS);
  needFinite(
    'sceneOf',
    `corners of face ${f}`,
    corners.flatMap((c) => [c.x, c.y, c.z]),
  );
  OCTAVES.forEach((hz, o) => {
    needWithin('sceneOf', `absorption of face ${f} at ${hz} Hz`, absorption[o]!, 0, 1);
    needWithin('sceneOf', `scattering of face ${f} at ${hz} Hz`, scattering[o]!, 0, 1);
  });
  const plane = planeThrough(corners);
  needAbove('sceneOf', `area of face ${f} in square metres`, plane.area, 0);
  return plane;
}

/** Least x y z, most x y z; no spreading of arguments, as there may be a million. */
function boxAround(corners: readonly Point[]): number[] {
  const box = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];
  for (const c of corners)
    [c.x, c.y, c.z].forEach((v, k) => {
      if (v < box[k]!) box[k] = v;
      if (v > box[k + 3]!) box[k + 3] = v;
    });
  return box;
}

function isOneSided({ n, d }: { n: Point; d: number }, corners: readonly Point[], within: number): boolean {
  let [below, above] = [false, false];
  for (const c of corners) {
    const off = dot(n, c) - d;
    if (off < -within) below = true;
    else if (off > within) above = true;
    if (below && above) return false;
  }
  return true;
}
