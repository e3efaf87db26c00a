import type { ComplexTrace } from '../signal/index.js';
import { levelsApart, type PairReading } from './pairReading.js';

/** Less coherence than that is noise. */
const LEAST_COHERENCE = 0.5;

/**
 * A sum as it was measured, held against the one that was predicted, where the sources meet. Each frequency counts by the weight of the
 * shared band, and by the power of the louder of the two sums as part of what both in phase would give: where next to nothing is left, a small error is
 * many dB, and nobody hears it.
 */
export interface ProvenSum {
  /** measured over predicted, by weight: mean, and root of the mean square, dB */
  meanDb: number;
  rmsDb: number;
  /** where they are apart most, as far as it counts, dB and Hz */
  worst: { db: number; hz: number };
  /** how much of the shared band, by weight, could be judged: the rest was not measured, or is not coherent; 0 to 1 */
  judged: number;
}

/**
 * Levels alone, smoothed over a twelfth of an octave: a sum may have been measured at another time zero.
 * @param measured on the frequencies of the prediction; NaN where nothing is known
 * @returns null where nothing of the shared band can be judged
 */
export function provenSum(
  predicted: ComplexTrace,
  measured: ComplexTrace & { coherence?: Float64Array },
  { weight: shared, efficiency }: Pick<PairReading, 'weight' | 'efficiency'>,
): ProvenSum | null {
  const apart = levelsApart(predicted, measured);
  let [weights, judged, sum, squares, most] = [0, 0, 0, 0, 0];
  let worst: ProvenSum['worst'] | null = null;
  shared.forEach((part, n) => {
    if (!(part > 0)) return;
    const db = apart[n]!;
    const w = part * efficiency[n]! ** 2 * (db > 0 ? 10 ** (db / 10) : 1);
    weights += w;
    if (!Number.isFinite(db) || (measured.coherence && measured.coherence[n]! < LEAST_COHERENCE)) return;
    judged += w;
    sum += w * db;
    squares += w * db * db;
    if (w * db * db > most || !worst) {
      most = w * db * db;
      worst = { db, hz: predicted.frequency[n]! };
    }
  });
  return (
    worst && { meanDb: sum / judged, rmsDb: Math.sqrt(squares / judged), worst, judged: judged / weights }
  );
}
