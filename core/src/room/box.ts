import type { Point } from '../geometry/index.js';
import type { Air } from './air.js';
import { OCTAVES, type PerOctave } from './octaves.js';

/** A box-shaped room with one corner at the origin. */
export interface BoxRoom {
  /** metres along x, y, z */
  size: Point;
  /** random-incidence absorption per octave of the walls at x = 0, x = size, y = 0, y = size, floor, ceiling */
  absorption: readonly [PerOctave, PerOctave, PerOctave, PerOctave, PerOctave, PerOctave];
  air: Air;
}

/** Refuses a room that cannot be computed. */
export function checkBox({ size, absorption }: BoxRoom): void {
  const { x, y, z } = size;
  if (![x, y, z].every((s) => s > 0 && s < Infinity))
    throw new RangeError(`box: sizes must be above 0 m, got ${x} x ${y} x ${z}`);
  for (const wall of absorption) {
    if (wall.length !== OCTAVES.length || wall.some((a) => !(a >= 0 && a < 1))) {
      throw new RangeError(
        `box: absorption needs ${OCTAVES.length} values of at least 0 and below 1, got ${wall.join(' ')}`,
      );
    }
  }
}

export const volumeOf = ({ size: { x, y, z } }: BoxRoom): number => x * y * z;
