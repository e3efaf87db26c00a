import { dot, type Point } from '../geometry/index.js';

/** A flat face that reflects, its corners in order. */
export interface ReflectingFacet {
  corners: readonly Point[];
}

/** One way of sound from a source to a receiver by mirrors. */
export interface FacetArrival {
  /** metres of the whole way */
  distance: number;
  /** unit vector in which it left the source */
  emission: Point;
  /** faces it met, in order, by their index; none for the direct sound */
  faces: readonly number[];
  /** where it met each of them */
  points: readonly Point[];
}

/** Ways multiply with the order, but not between two faces. */
const [FREE_ORDER, MOST_ORDER] = [8, 60];

/** Less than this, metres, is on a face. */
const ON = 1e-6;

/** A face with its plane n . p = d, and the two axes along which it is looked at. */
interface Plane {
  n: Point;
  d: number;
  flat: [number, number][];
  axes: ['x' | 'y' | 'z', 'x' | 'y' | 'z'];
}

function planeOf({ corners }: ReflectingFacet): Plane {
  const n = { x: 0, y: 0, z: 0 };
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length]!;
    n.x += (a.y - b.y) * (a.z + b.z);
    n.y += (a.z - b.z) * (a.x + b.x);
    n.z += (a.x - b.x) * (a.y + b.y);
  });
  const length = Math.hypot(n.x, n.y, n.z);
  if (!(length > 0)) throw new RangeError('facet: a face without an area reflects nothing');
  const unit = { x: n.x / length, y: n.y / length, z: n.z / length };
  const d = corners.reduce((sum, c) => sum + dot(unit, c), 0) / corners.length;
  // seen along the axis that its normal is nearest to, a face is widest
  const widest = (['x', 'y', 'z'] as const).reduce((a, b) => (Math.abs(unit[b]) > Math.abs(unit[a]) ? b : a));
  const axes = (['x', 'y', 'z'] as const).filter((axis) => axis !== widest) as Plane['axes'];
  return { n: unit, d, axes, flat: corners.map((c) => [c[axes[0]], c[axes[1]]]) };
}

const mirrored = (p: Point, { n, d }: Plane): Point => {
  const by = 2 * (dot(n, p) - d);
  return { x: p.x - by * n.x, y: p.y - by * n.y, z: p.z - by * n.z };
};

/** Whether a point of a plane lies on its face. */
function isOn({ flat, axes }: Plane, p: Point): boolean {
  const [u, v] = [p[axes[0]], p[axes[1]]];
  let inside = false;
  for (let i = 0, j = flat.length - 1; i < flat.length; j = i++) {
    const [ui, vi] = flat[i]!;
    const [uj, vj] = flat[j]!;
    if (vi > v !== vj > v && u < ui + ((v - vi) * (uj - ui)) / (vj - vi)) inside = !inside;
  }
  return inside;
}

/** Where the way between two points goes through a plane, as a share of it; null where it does not. */
function crossing({ n, d }: Plane, from: Point, to: Point): number | null {
  const [a, b] = [dot(n, from) - d, dot(n, to) - d];
  if (a * b >= 0) return null;
  return a / (a - b);
}
const between = (a: Point, b: Point, t: number): Point => ({
  x: a.x + t * (b.x - a.x),
  y: a.y + t * (b.y - a.y),
  z: a.z + t * (b.z - a.z),
});

/**
 * All specular ways from a source to a receiver up to an order of reflections, in a room of flat faces of any shape: images
 * by mirroring, each kept only where its way meets its faces and no other (Borish 1984, with the way traced back).
 * @param order most reflections of a way, 0 to 8; between two faces alone, where ways do not multiply, up to 60
 * @param longest ways up to this, metres
 */
export function facetArrivals(
  facets: readonly ReflectingFacet[],
  source: Point,
  receiver: Point,
  order: number,
  longest: number,
): FacetArrival[] {
  if (!(Number.isInteger(order) && order >= 0 && order <= MOST_ORDER))
    throw new RangeError(`facetArrivals: order must be 0 to ${MOST_ORDER}, got ${order}`);
  if (order > FREE_ORDER && facets.length > 2)
    throw new RangeError(
      `facetArrivals: order must be 0 to ${FREE_ORDER} for more than two faces, got ${order}`,
    );
  if (!(longest > 0)) throw new RangeError(`facetArrivals: longest way must be above 0 m, got ${longest}`);
  for (const p of [source, receiver])
    if (![p.x, p.y, p.z].every(Number.isFinite))
      throw new RangeError('facetArrivals: source and receiver must be finite points');
  const planes = facets.map(planeOf);
  const found: FacetArrival[] = [];
  const faces: number[] = [];
  const images: Point[] = [source];

  const isFree = (from: Point, to: Point, a: number, b: number) =>
    planes.every((plane, i) => {
      if (i === a || i === b) return true;
      const t = crossing(plane, from, to);
      return t === null || t * far(from, to) < ON || (1 - t) * far(from, to) < ON
        ? true
        : !isOn(plane, between(from, to, t));
    });

  /** Where the way back from the receiver meets the faces, from the source on; null where it misses one or something stands in between. */
  const traced = (): Point[] | null => {
    const points: Point[] = [];
    let at = receiver;
    let last = -1;
    for (let k = faces.length; k > 0; k--) {
      const face = faces[k - 1]!;
      const t = crossing(planes[face]!, at, images[k]!);
      if (t === null) return null;
      const on = between(at, images[k]!, t);
      if (!isOn(planes[face]!, on) || !isFree(at, on, face, last)) return null;
      at = on;
      last = face;
      points.unshift(on);
    }
    return isFree(at, source, last, -1) ? points : null;
  };

  const visit = () => {
    const image = images.at(-1)!;
    const distance = far(image, receiver);
    // mirrors further on only lead further away from faces behind them, not from the receiver: all orders are looked at
    if (distance <= longest) {
      const points = traced();
      if (points) {
        const first = points[0] ?? receiver;
        const way = far(source, first);
        const emission =
          way > 0
            ? scaled(first, source, 1 / way)
            : distance > 0
              ? scaled(receiver, source, 1 / distance)
              : UP;
        found.push({ distance, emission, faces: [...faces], points });
      }
    }
    if (faces.length === order) return;
    for (let i = 0; i < planes.length; i++) {
      if (faces.at(-1) === i) continue;
      images.push(mirrored(image, planes[i]!));
      faces.push(i);
      visit();
      images.pop();
      faces.pop();
    }
  };
  visit();
  return found;
}

const UP: Point = { x: 0, y: 0, z: 1 };
const far = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z);
const scaled = (to: Point, from: Point, by: number): Point => ({
  x: (to.x - from.x) * by,
  y: (to.y - from.y) * by,
  z: (to.z - from.z) * by,
});
