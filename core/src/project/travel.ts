import { distanceBetween, type Point } from '../geometry/index.js';
import { extentOf, nearestM } from '../place/index.js';
import { speedOfSound } from '../room/index.js';
import type { Loudspeaker, Project } from './types.js';

/** Seconds that sound takes from a loudspeaker's place to a point, at the place's temperature. */
export const travelS = ({ place }: Pick<Project, 'place'>, loudspeaker: Loudspeaker, to: Point): number =>
  wayM(place, loudspeaker, to) / speedOfSound(place.temperatureC);

/** Metres that sound goes from a loudspeaker to a point; of a group from the box that is heard first, its delay counted as a way. */
export const wayM = (
  { temperatureC }: Pick<Project['place'], 'temperatureC'>,
  loudspeaker: Loudspeaker,
  to: Point,
): number => nearestM(loudspeaker, to, speedOfSound(temperatureC));

/** Seconds that sound takes across a place, from corner to corner. */
export const crossingS = ({ shape, temperatureC }: Project['place']): number => {
  const { least, most } = extentOf(shape);
  return distanceBetween(least, most) / speedOfSound(temperatureC);
};
