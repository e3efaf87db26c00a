/** Points of the place, distances, directions, outlines. */
export {
  axesOf,
  distanceBetween,
  horizontalAim,
  meanPoint,
  pointAlong,
  type Axes,
  type Point,
  type Pose,
} from './point.js';
export {
  areaOf,
  boundsOf,
  clipped,
  crossingSides,
  distanceToSides,
  integralOver,
  isWithin,
  signedArea,
  type Corner,
  type HalfPlane,
} from './polygon.js';
export { cross, dot, lengthOf, minus } from './vector.js';
