/** A point of the place, or a vector in it: metres along x and y on the floor, z up, from the corner at the origin. */
export interface Point {
  x: number;
  y: number;
  z: number;
}

/** Where something stands and where it points: `aim` is a unit vector. */
export interface Pose {
  position: Point;
  aim: Point;
}

/** The middle of some points; NaN of none. */
export function meanPoint(points: readonly Point[]): Point {
  const mean = (axis: keyof Point) => points.reduce((sum, p) => sum + p[axis], 0) / points.length;
  return { x: mean('x'), y: mean('y'), z: mean('z') };
}

/** Metres between two points. */
export const distanceBetween = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z);

/** Unit vector of an azimuth in the plane of the floor, radians counter-clockwise from x. */
export const horizontalAim = (azimuth: number): Point => ({
  x: Math.cos(azimuth),
  y: Math.sin(azimuth),
  z: 0,
});

/** Unit vectors of something that points somewhere: ahead, to its left, and up from its own point of view. */
export interface Axes {
  ahead: Point;
  left: Point;
  up: Point;
}

/**
 * Axes of something turned by azimuth (counter-clockwise from x), pitched (up where positive) and rolled (its left side down
 * where positive), in this order; degrees.
 */
export function axesOf(yawDeg: number, pitchDeg = 0, rollDeg = 0): Axes {
  const [sy, cy] = sineCosine(yawDeg);
  const [sp, cp] = sineCosine(pitchDeg);
  const [sr, cr] = sineCosine(rollDeg);
  const left = { x: -sy, y: cy, z: 0 };
  const up = { x: -sp * cy, y: -sp * sy, z: cp };
  return {
    ahead: { x: cp * cy, y: cp * sy, z: sp },
    left: mixed(left, cr, up, -sr),
    up: mixed(up, cr, left, sr),
  };
}

/** A point so far ahead, to the left and up of another. */
export const pointAlong = (
  from: Point,
  { ahead, left, up }: Axes,
  by: { ahead?: number; left?: number; up?: number },
): Point => {
  const on = (axis: 'x' | 'y' | 'z') =>
    from[axis] + (by.ahead ?? 0) * ahead[axis] + (by.left ?? 0) * left[axis] + (by.up ?? 0) * up[axis];
  return { x: on('x'), y: on('y'), z: on('z') };
};

const sineCosine = (deg: number): [number, number] => [
  Math.sin((deg * Math.PI) / 180),
  Math.cos((deg * Math.PI) / 180),
];
const mixed = (a: Point, ga: number, b: Point, gb: number): Point => ({
  x: ga * a.x + gb * b.x,
  y: ga * a.y + gb * b.y,
  z: ga * a.z + gb * b.z,
});
