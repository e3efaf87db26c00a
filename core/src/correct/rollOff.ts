import { median, smoothLevels } from '../signal/index.js';
import { usableBand } from '../measure/index.js';
import type { Span } from './span.js';

/** How a loudspeaker's band ends by itself: like a Butterworth filter of this corner (-3 dB) and order. */
export interface RollOff {
  cornerHz: number;
  order: number;
}

export interface RollOffs {
  low: RollOff | null;
  high: RollOff | null;
}

/** What lies further down than this is noise or leakage, not a filter's slope. */
const DEEPEST_DB = 24;
/** A room's peaks and dips count no more than this in the fit. */
const MOST_MISFIT_DB = 6;
/** A roll-off must explain the end better than none does, by this share of the misfit. */
const BETTER = 0.8;
/** An end that falls by less than this at the edge of the grid is none. */
const LEAST_FALL_DB = 2;
const ORDERS = [1, 2, 3, 4, 5, 6, 8];

/**
 * The natural roll-offs of a response: for each end, the Butterworth magnitude that fits its level (1/3 octave, against the
 * median of the band) best, by least absolute deviation over corners on the grid and orders 1 to 8.
 * @param frequency log grid, Hz
 * @returns null for an end that does not fall within the grid, both null when no band is found
 */
export function findRollOffs(frequency: Float64Array, averageDb: Float64Array): RollOffs {
  const band = usableBand(frequency, averageDb);
  if (!band) return { low: null, high: null };
  const smooth = smoothLevels(frequency, averageDb, 3);
  const level = median([...smooth].filter((_, i) => frequency[i]! >= band.from && frequency[i]! <= band.to));
  const middle = Math.sqrt(band.from * band.to);
  const fit = (side: 'low' | 'high'): RollOff | null => {
    const edge = side === 'low' ? band.from : band.to;
    const inside = (f: number) =>
      side === 'low' ? f <= Math.min(middle, 2 * edge) : f >= Math.max(middle, edge / 2);
    const points = [...frequency].flatMap((f, i) => (inside(f) && Number.isFinite(smooth[i]!) ? [i] : []));
    const misfitOf = (rollOff: RollOff | null) => {
      let misfit = 0;
      for (const i of points) {
        const got = Math.max(-DEEPEST_DB, smooth[i]! - level);
        const model = rollOff ? Math.max(-DEEPEST_DB, fallDb(side, rollOff, frequency[i]!)) : 0;
        misfit += Math.min(MOST_MISFIT_DB, Math.abs(got - model));
      }
      return misfit;
    };
    let best: { rollOff: RollOff; misfit: number } | null = null;
    for (const corner of frequency) {
      if (side === 'low' ? corner > 2 * edge : corner < edge / 2) continue;
      if (side === 'low' ? corner > middle : corner < middle) continue;
      for (const order of ORDERS) {
        const rollOff = { cornerHz: corner, order };
        const misfit = misfitOf(rollOff);
        if (!best || misfit < best.misfit) best = { rollOff, misfit };
      }
    }
    if (!best || best.misfit > BETTER * misfitOf(null)) return null;
    const outer = side === 'low' ? frequency[0]! : frequency.at(-1)!;
    return fallDb(side, best.rollOff, outer) < -LEAST_FALL_DB ? best.rollOff : null;
  };
  return { low: fit('low'), high: fit('high') };
}

const fallDb = (side: 'low' | 'high', { cornerHz, order }: RollOff, f: number): number =>
  -10 * Math.log10(1 + (side === 'low' ? cornerHz / f : f / cornerHz) ** (2 * order));

/** Corners to which the ends of a band are pushed instead of their own, Hz; null keeps what is there. */
export interface Reach {
  lowReachHz: number | null;
  highReachHz: number | null;
}

/** A span moved along with the ends that are pushed, so that the correction acts as far as the target asks for. */
export function pushedSpan(span: Span, { low, high }: RollOffs, { lowReachHz, highReachHz }: Reach): Span {
  const down = low && lowReachHz !== null ? Math.min(1, lowReachHz / low.cornerHz) : 1;
  const up = high && highReachHz !== null ? Math.max(1, highReachHz / high.cornerHz) : 1;
  return { from: span.from * down, to: span.to * up };
}

/** Level of roll-offs at each frequency, dB, 0 well inside the band. An end is only ever pushed outwards. */
export function rollOffDb(
  { low, high }: RollOffs,
  frequency: Float64Array,
  { lowReachHz, highReachHz }: Reach = { lowReachHz: null, highReachHz: null },
): Float64Array {
  const lowEnd = low && { ...low, cornerHz: Math.min(lowReachHz ?? Infinity, low.cornerHz) };
  const highEnd = high && { ...high, cornerHz: Math.max(highReachHz ?? 0, high.cornerHz) };
  return frequency.map(
    (f) => (lowEnd ? fallDb('low', lowEnd, f) : 0) + (highEnd ? fallDb('high', highEnd, f) : 0),
  );
}
