import { withoutDelay, type TransferCurve } from '../live/index.js';
import { gainOfDb, logGrid } from '../signal/index.js';

/** A curve of the library, on `LIBRARY_GRID` or a part of it; without a phase its values are plain magnitudes. */
export interface LibraryCurve extends TransferCurve {
  hasPhase: boolean;
}

/** What the eye changes of a trace. */
export interface CurveView {
  gainDb: number;
  /** later by so much, seconds */
  delayS: number;
  inverted: boolean;
}

/** The points that all curves of the library share, Hz: 48 to an octave. */
export const LIBRARY_GRID = logGrid(20, 20_000, 48);

/** A curve as it is looked at: another level, another time, the other polarity; its samples stay as they were. */
export function viewedCurve(curve: LibraryCurve, { gainDb, delayS, inverted }: CurveView): LibraryCurve {
  const gain = (inverted && curve.hasPhase ? -1 : 1) * gainOfDb(gainDb);
  const { re, im } = curve.hasPhase ? withoutDelay(curve, -delayS) : curve;
  return { ...curve, re: re.map((v) => gain * v), im: im.map((v) => gain * v) };
}

/**
 * Curves brought to the points that all of them have: those of one grid that lie within every curve's ends.
 * @throws RangeError where they share none, or are of different grids
 */
export function onSharedPoints(curves: readonly LibraryCurve[]): LibraryCurve[] {
  const first = Math.max(...curves.map((c) => c.frequency[0]!));
  const last = Math.min(...curves.map((c) => c.frequency.at(-1)!));
  const near = (a: number, b: number) => Math.abs(a / b - 1) < 1e-4;
  const parts = curves.map((c) => {
    const from = c.frequency.findIndex((f) => f >= first || near(f, first));
    let to = c.frequency.length;
    while (to > 0 && c.frequency[to - 1]! > last && !near(c.frequency[to - 1]!, last)) to--;
    const part = (of: Float64Array) => of.subarray(from, to);
    return {
      frequency: part(c.frequency),
      re: part(c.re),
      im: part(c.im),
      coherence: part(c.coherence),
      hasPhase: c.hasPhase,
    };
  });
  const [one, ...others] = parts;
  if (!one || one.frequency.length === 0)
    throw new RangeError('onSharedPoints: the curves share no frequencies');
  for (const other of others)
    if (
      other.frequency.length !== one.frequency.length ||
      other.frequency.some((f, n) => !near(f, one.frequency[n]!))
    )
      throw new RangeError('onSharedPoints: the curves have different grids');
  return parts;
}
