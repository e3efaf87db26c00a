import type { Point } from '../geometry/index.js';

/** What an ear makes of sound that travels in a direction: how much later it comes than in the middle of the head, and what is left of it per octave; inverted where that is below 0. */
export interface Ear {
  delayS(going: Point): number;
  /** as amplitudes, written into `out` */
  gains(going: Point, out: Float64Array): void;
}
