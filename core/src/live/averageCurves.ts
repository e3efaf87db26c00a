import type { TransferCurve } from './transferFunction.js';
import type { Averaged } from './liveSetup.js';

/**
 * One curve of several on the same grid.
 * - `power`: level of the mean power, phase of the complex mean;
 * - `complex`: mean of the complex values, in which what differs in phase cancels;
 * - `coherence`: the same, each by its coherence.
 *
 * Where one of them says nothing, the others count. Coherence is the mean of those that have one.
 * @throws RangeError for grids that differ, or no curve
 */
export function averageCurves(
  curves: readonly TransferCurve[],
  how: Exclude<Averaged, 'none'>,
): TransferCurve {
  const [first] = curves;
  if (!first) throw new RangeError('averageCurves: there is no curve');
  const { frequency } = first;
  if (curves.some((c) => c.frequency.length !== frequency.length))
    throw new RangeError('averageCurves: the curves have different grids');
  const out = {
    frequency,
    re: new Float64Array(frequency.length).fill(NaN),
    im: new Float64Array(frequency.length).fill(NaN),
    coherence: new Float64Array(frequency.length).fill(NaN),
  };
  for (let n = 0; n < frequency.length; n++) {
    let [re, im, power, weight, coherence, seen] = [0, 0, 0, 0, 0, 0];
    for (const curve of curves) {
      const [a, b, c] = [curve.re[n]!, curve.im[n]!, curve.coherence[n]!];
      if (!Number.isFinite(a) || !Number.isFinite(b)) continue;
      if (Number.isFinite(c)) {
        coherence += c;
        seen++;
      }
      const by = how === 'coherence' ? (Number.isFinite(c) ? c : 0) : 1;
      re += by * a;
      im += by * b;
      power += by * (a * a + b * b);
      weight += by;
    }
    if (!(weight > 0)) continue;
    const size = Math.hypot(re, im);
    const by = how === 'power' ? (size > 0 ? Math.sqrt(power / weight) / size : 0) : 1 / weight;
    out.re[n] = by * re;
    out.im[n] = by * im;
    if (seen > 0) out.coherence[n] = coherence / seen;
  }
  return out;
}
