import type { Point } from '../geometry/index.js';

/** A microphone that lies on the floor picks up twice the pressure of the free field. */
export const GROUND_PLANE_DB = 20 * Math.log10(2);

export interface GroundPlane {
  /** from the source straight to the capsule, metres */
  directM: number;
  /** from the source by the floor to the capsule, metres */
  reflectedM: number;
  /** up to here the two arrive within an eighth of a wave, and the doubling holds within 0.7 dB; Hz */
  holdsToHz: number;
}

/**
 * The two ways of the sound to a capsule on the floor, and how far up in frequency they still add to twice the pressure.
 * With a path difference of 1/8 wave the sum is 20 log10(2 cos(pi/8)) = 5.33 dB in place of 6.02.
 * @param capsuleM height of the capsule's middle over the floor, above 0
 * @throws RangeError for a source below the floor or a capsule not above it
 */
export function groundPlane(
  source: Point,
  at: { x: number; y: number },
  capsuleM: number,
  speedOfSound: number,
): GroundPlane {
  if (!(source.z >= 0 && capsuleM > 0))
    throw new RangeError(`groundPlane: source ${source.z} m, capsule ${capsuleM} m above the floor`);
  const along = Math.hypot(source.x - at.x, source.y - at.y);
  const directM = Math.hypot(along, source.z - capsuleM);
  const reflectedM = Math.hypot(along, source.z + capsuleM);
  return { directM, reflectedM, holdsToHz: speedOfSound / (8 * Math.max(1e-9, reflectedM - directM)) };
}
