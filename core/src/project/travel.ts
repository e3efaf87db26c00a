import { distanceBetween, type Point } from '../geometry/index.js';
import { speedOfSound } from '../room/index.js';
import type { Loudspeaker, Project } from './types.js';

/** Seconds that sound takes from a loudspeaker's place to a point, at the place's temperature. */
export const travelS = (project: Project, loudspeaker: Loudspeaker, to: Point): number =>
  distanceBetween(loudspeaker.position, to) / speedOfSound(project.place.temperatureC);

/** Seconds that sound takes across a place, from corner to corner. */
export const crossingS = ({ size: { x, y, z }, temperatureC }: Project['place']): number =>
  Math.hypot(x, y, z) / speedOfSound(temperatureC);
