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

/** Metres between two points. */
export const distanceBetween = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z);

/** Unit vector of an azimuth in the plane of the floor, radians counter-clockwise from x. */
export const horizontalAim = (azimuth: number): Point => ({
  x: Math.cos(azimuth),
  y: Math.sin(azimuth),
  z: 0,
});
