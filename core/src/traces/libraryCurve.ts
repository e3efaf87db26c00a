import { withoutDelay, type TransferCurve } from '../live/index.js';
import { shapeTrace, type Shape } from '../shapes/index.js';
import { gainOfDb, logGrid } from '../signal/index.js';

/** A curve of the library, on `LIBRARY_GRID` or a part of it; without a phase its values are plain magnitudes. */
export interface LibraryCurve extends TransferCurve {
  hasPhase: boolean;
}

/** What of an impulse response is looked at: so long ahead of its arrival, and so long behind it. */
export interface TraceWindow {
  beforeS: number;
  afterS: number;
}

/** What the eye changes of a trace. */
export interface CurveView {
  gainDb: number;
  /** later by so much, seconds */
  delayS: number;
  inverted: boolean;
  /** that act on it, as circuits */
  shapes: Shape[];
  /** of its impulse response; null for all of it */
  window: TraceWindow | null;
}

/** The points that all curves of the library share, Hz: 48 to an octave. */
export const LIBRARY_GRID = logGrid(20, 20_000, 48);

/**
 * A curve as it is looked at: another level, another time, the other polarity, behind shapes; its samples stay as they were. Its
 * window is `windowedCurve`'s business, which takes longer.
 */
export function viewedCurve(
  curve: LibraryCurve,
  { gainDb, delayS, inverted, shapes }: Omit<CurveView, 'window'>,
): LibraryCurve {
  const gain = (inverted && curve.hasPhase ? -1 : 1) * gainOfDb(gainDb);
  const { re, im } = curve.hasPhase ? withoutDelay(curve, -delayS) : curve;
  const by = shapes.length > 0 ? shapeTrace(shapes, curve.frequency) : null;
  if (!by) return { ...curve, re: re.map((v) => gain * v), im: im.map((v) => gain * v) };
  if (!curve.hasPhase)
    return { ...curve, re: re.map((v, n) => gain * v * Math.hypot(by.re[n]!, by.im[n]!)), im: im.slice() };
  return {
    ...curve,
    re: re.map((v, n) => gain * (v * by.re[n]! - im[n]! * by.im[n]!)),
    im: im.map((v, n) => gain * (v * by.re[n]! + re[n]! * by.im[n]!)),
  };
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

/** Shapes as a curve of their own. @throws RangeError for shapes that mean nothing */
export function curveOfShapes(shapes: readonly Shape[]): LibraryCurve {
  const trace = shapeTrace(shapes, LIBRARY_GRID);
  return { ...trace, coherence: LIBRARY_GRID.map(() => NaN), hasPhase: true };
}
