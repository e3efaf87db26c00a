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
/** What falls otherwise must explain it better than a roll-off by this much, or the loudspeaker's own end is the likelier. */
const CLEARLY = 2;
/** An end that falls by less than this at the edge of the grid is none. */
const LEAST_FALL_DB = 3;
/** No loudspeaker's band ends with 6 dB per octave: what falls so slowly is its balance, not its end. */
const ORDERS = [2, 3, 4, 5, 6, 8];
/** Steps to a lower level, which are no end either: their depth, dB, and order. */
const SHELVES = [0.5, 1, 2].flatMap((order) =>
  [-3, -4.5, -6, -7.5, -9].map((depthDb) => ({ depthDb, order })),
);
/** Of the grid, every so many points are looked at. */
const COARSE = 4;
/** Falls that are steady, dB per octave, are none either. */
const STEADY_DB = [1, 2, 3];
/** The treble in a room may lie so far off the middle of the band before its end begins; the lows begin at its level. */
const MOST_OFFSET_DB = { low: 0, high: 4 };

/**
 * The natural roll-offs of a response: for each end, the Butterworth magnitude that fits its level (1/3 octave, against the
 * median of the band) best, by least absolute deviation over corners on the grid and orders 2 to 8. A shelf, or a fall
 * that is none, that explains it as well is not taken for an end.
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
    const outer = side === 'low' ? frequency[0]! : frequency.at(-1)!;
    const inside = (f: number) =>
      side === 'low' ? f <= Math.min(middle, 2 * edge) : f >= Math.max(middle, edge / 2);
    // a third of an octave is smooth enough to be looked at every twelfth of one
    const points = [...frequency].flatMap((f, i) =>
      i % COARSE === 0 && inside(f) && Number.isFinite(smooth[i]!) ? [i] : [],
    );
    const got = points.map((i) => Math.max(-DEEPEST_DB, smooth[i]! - level));
    const misfitOf = (modelDb: (f: number) => number) => {
      const off = points.map((i, k) => got[k]! - Math.max(-DEEPEST_DB, modelDb(frequency[i]!)));
      const most = MOST_OFFSET_DB[side];
      const offset = most === 0 ? 0 : Math.min(most, Math.max(-most, median(off)));
      return off.reduce((sum, v) => sum + Math.min(MOST_MISFIT_DB, Math.abs(v - offset)), 0);
    };
    const start = side === 'low' ? Math.min(middle, 2 * edge) : Math.max(middle, edge / 2);
    const none = misfitOf(() => 0);
    let other = Math.min(
      ...STEADY_DB.map((perOctave) =>
        misfitOf((f) => -perOctave * Math.max(0, (side === 'low' ? -1 : 1) * Math.log2(f / start))),
      ),
    );
    let best: { rollOff: RollOff; misfit: number } | null = null;
    for (const corner of frequency) {
      if (side === 'low' ? corner > 2 * edge : corner < edge / 2) continue;
      if (side === 'low' ? corner > middle : corner < middle) continue;
      for (const order of ORDERS) {
        const rollOff = { cornerHz: corner, order };
        const misfit = misfitOf((f) => fallDb(side, rollOff, f));
        if (!best || misfit < best.misfit) best = { rollOff, misfit };
      }
    }
    // a shelf that goes on beyond what is seen cannot be told from an end
    const shelves = frequency.filter((f) =>
      side === 'low' ? f <= middle && f >= 2 * outer : f >= middle && f <= outer / 2,
    );
    for (let k = 0; k < shelves.length; k += COARSE)
      for (const { depthDb, order } of SHELVES)
        other = Math.min(
          other,
          misfitOf((f) => shelfDb(side, { cornerHz: shelves[k]!, order }, depthDb, f)),
        );
    if (!best || best.misfit > BETTER * none || best.misfit > CLEARLY * other) return null;
    return fallDb(side, best.rollOff, outer) < -LEAST_FALL_DB ? best.rollOff : null;
  };
  return { low: fit('low'), high: fit('high') };
}

const fallDb = (side: 'low' | 'high', { cornerHz, order }: RollOff, f: number): number =>
  -10 * Math.log10(1 + (side === 'low' ? cornerHz / f : f / cornerHz) ** (2 * order));

/** A shelf of a depth whose middle is at the corner. */
function shelfDb(side: 'low' | 'high', { cornerHz, order }: RollOff, depthDb: number, f: number): number {
  const x = (side === 'low' ? cornerHz / f : f / cornerHz) ** (2 * order);
  return 10 * Math.log10((1 + 10 ** (depthDb / 10) * x) / (1 + x));
}

/** Corners to which the ends of a band are pushed instead of their own, Hz; null keeps what is there. */
export interface Extension {
  lowExtensionHz: number | null;
  highExtensionHz: number | null;
}

/** A span moved along with the ends that are pushed, so that the correction acts as far as the target asks for. */
export function extendedSpan(
  span: Span,
  { low, high }: RollOffs,
  { lowExtensionHz, highExtensionHz }: Extension,
): Span {
  const down = low && lowExtensionHz !== null ? Math.min(1, lowExtensionHz / low.cornerHz) : 1;
  const up = high && highExtensionHz !== null ? Math.max(1, highExtensionHz / high.cornerHz) : 1;
  return { from: span.from * down, to: span.to * up };
}

/** The ends that a target keeps: none where it keeps no roll-off, otherwise those found, extended where it asks for that. */
export function keptEnds(
  { low, high }: RollOffs,
  { keepsRollOff, lowExtensionHz, highExtensionHz }: Extension & { keepsRollOff: boolean },
): RollOffs {
  if (!keepsRollOff) return { low: null, high: null };
  return {
    low: low && { ...low, cornerHz: Math.min(lowExtensionHz ?? Infinity, low.cornerHz) },
    high: high && { ...high, cornerHz: Math.max(highExtensionHz ?? 0, high.cornerHz) },
  };
}

/** Level of roll-offs at each frequency, dB, 0 well inside the band. */
export const rollOffDb = ({ low, high }: RollOffs, frequency: Float64Array): Float64Array =>
  frequency.map((f) => (low ? fallDb('low', low, f) : 0) + (high ? fallDb('high', high, f) : 0));
