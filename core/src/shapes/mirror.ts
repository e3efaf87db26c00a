import { dbOfGain, logGrid } from '../signal/index.js';
import type { Shape } from './shape.js';
import { shapeTrace } from './shapeTrace.js';

const POINTS = logGrid(20, 20_000, 24);

/** Level of shapes in a row, dB. @param frequency Hz */
export function shapesLevelDb(
  shapes: readonly Shape[],
  frequency: Float64Array,
  rate: number | null = null,
): Float64Array {
  const { re, im } = shapeTrace(shapes, frequency, rate);
  return re.map((v, n) => dbOfGain(Math.hypot(v, im[n]!)));
}

/**
 * How far a boost and a cut are from being each other's mirror image.
 * @returns the largest level that is left between 20 Hz and 20 kHz when both act, dB, and where it lies, Hz
 */
export function mirrorApart(boost: readonly Shape[], cut: readonly Shape[]): { db: number; hz: number } {
  const both = shapesLevelDb([...boost, ...cut], POINTS);
  let most = 0;
  both.forEach((v, n) => {
    if (Math.abs(v) > Math.abs(both[most]!)) most = n;
  });
  return { db: both[most]!, hz: POINTS[most]! };
}
