import { smoothedCurve } from '@pebble-hall/core/live';
import { LIBRARY_GRID, type LibraryCurve } from '@pebble-hall/core/traces';

/** A curve on the points that all plots of the library share; what it does not reach is not known. */
export function onGrid(curve: LibraryCurve): LibraryCurve {
  if (curve.frequency.length === LIBRARY_GRID.length) return curve;
  const first = LIBRARY_GRID.findIndex((f) => f > curve.frequency[0]! * 0.9999);
  const wide = (of: Float64Array) => {
    const out = new Float64Array(LIBRARY_GRID.length).fill(NaN);
    out.set(of.subarray(0, out.length - first), first);
    return out;
  };
  return {
    ...curve,
    frequency: LIBRARY_GRID,
    re: wide(curve.re),
    im: wide(curve.im),
    coherence: wide(curve.coherence),
  };
}

const smoothed = new WeakMap<LibraryCurve, Map<number, LibraryCurve>>();

/** A curve on the points of all plots, smoothed over a part of an octave: worked out once, however often it is drawn. */
export function smoothOnGrid(curve: LibraryCurve, fraction: number): LibraryCurve {
  const known = smoothed.get(curve) ?? new Map<number, LibraryCurve>();
  smoothed.set(curve, known);
  let found = known.get(fraction);
  if (!found) {
    const wide = onGrid(curve);
    found = { ...wide, ...smoothedCurve(wide, fraction) };
    known.set(fraction, found);
  }
  return found;
}
