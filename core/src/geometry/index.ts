/** Points of the place, distances, directions. */
export { distanceBetween, horizontalAim, type Point, type Pose } from './point.js';
