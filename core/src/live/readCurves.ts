import type { TransferCurve } from './transferFunction.js';
import { curveLevelDb, smoothedCurve } from './shownCurve.js';

export interface Stretch {
  from: number;
  to: number;
}

/** Below this a curve tells more of the noise than of what is measured. */
export const LOW_COHERENCE = 0.5;
/** What is narrower, in octaves, is a dip and no reason to speak. */
const LEAST_OCTAVES = 0.4;

/**
 * Where coherence is low, smoothed over a sixth of an octave: the widest stretch within a band.
 * @returns null where there is none of 0.4 octaves
 */
export function incoherentStretch(curve: TransferCurve, { from, to }: Stretch): Stretch | null {
  const { frequency, coherence } = smoothedCurve(curve, 6);
  let best: Stretch | null = null;
  let start = -1;
  const octaves = ({ from: a, to: b }: Stretch) => Math.log2(b / a);
  for (let n = 0; n <= frequency.length; n++) {
    const f = frequency[n] ?? NaN;
    const isLow = f >= from && f <= to && !(coherence[n]! >= LOW_COHERENCE);
    if (isLow && start < 0) start = n;
    if (isLow || start < 0) continue;
    const found = { from: frequency[start]!, to: frequency[n - 1]! };
    start = -1;
    if (octaves(found) >= LEAST_OCTAVES && (!best || octaves(found) > octaves(best))) best = found;
  }
  return best;
}

/** How far a curve's level lies over another's within a band, over log frequency, where both are coherent. */
export interface CurvesApart {
  /** mean of the difference, dB */
  meanDb: number;
  /** what is left when the mean is taken off, RMS, dB */
  rmsDb: number;
  /** share of the band in which both are known, 0 to 1 */
  share: number;
}

/** @returns null where both are coherent nowhere in the band */
export function curvesApart(a: TransferCurve, b: TransferCurve, { from, to }: Stretch): CurvesApart | null {
  const [first, second] = [a, b].map((c) => curveLevelDb(smoothedCurve(c, 6)));
  let [sum, squares, known, all] = [0, 0, 0, 0];
  a.frequency.forEach((f, n) => {
    if (f < from || f > to) return;
    all++;
    const apart = first![n]! - second![n]!;
    if (!Number.isFinite(apart)) return;
    if (!(a.coherence[n]! >= LOW_COHERENCE && b.coherence[n]! >= LOW_COHERENCE)) return;
    sum += apart;
    squares += apart * apart;
    known++;
  });
  if (known === 0) return null;
  const meanDb = sum / known;
  return { meanDb, rmsDb: Math.sqrt(Math.max(0, squares / known - meanDb ** 2)), share: known / all };
}
