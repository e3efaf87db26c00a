import type { ComplexTrace } from '../signal/index.js';
import type { Shape } from './shape.js';

/** A curve that shapes are read from; a coherence that is not known is NaN. */
export interface ReadCurve extends ComplexTrace {
  coherence: Float64Array;
  hasPhase: boolean;
}

export interface ReadOptions {
  /** of the curve, Hz */
  from: number;
  to: number;
  /** whether a level that is the same everywhere is found along with the shapes, or held at 0 dB */
  levelIsFree: boolean;
  /** that shapes are made at, Hz; null for circuits */
  rate: number | null;
}

/** Standard errors of the figures of a shape; null where there is none, or it lies at the end of what was tried. */
export interface ShapeErrors {
  /** of the frequency, as a part of it */
  hz: number | null;
  gainDb: number | null;
  /** of q, as a part of it */
  q: number | null;
}

export interface FoundShape {
  shape: Shape;
  errors: ShapeErrors;
  /** the next best order or family, and what it would leave: dB, of an all-pass degrees; null where nothing was left open */
  nextBest: { shape: Shape; left: number } | null;
}

export interface ShapeReading {
  /** in the order that they were asked for */
  shapes: FoundShape[];
  levelDb: number;
  levelErrorDb: number | null;
  /** root mean square of what the shapes leave of the level, dB */
  leftDb: number;
  /** of the phase, degrees, when a delay and a polarity are taken off; null for a curve without phase */
  leftDeg: number | null;
  /** that was taken off for it, seconds; null for a curve without phase */
  delayS: number | null;
  /** how many points of the curve counted */
  points: number;
}

/** The points of a curve that count. */
export interface UsedPoints extends ComplexTrace {
  levelDb: Float64Array;
  /** of mean square 1 */
  weight: Float64Array;
}
