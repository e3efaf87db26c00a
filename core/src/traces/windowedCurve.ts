import { needWithin } from '../limits/index.js';
import { findArrival, windowImpulse } from '../measure/index.js';
import { interpolateLog } from '../signal/index.js';
import { curveOfImpulse } from './curveOfImpulse.js';
import { impulseOfCurve } from './impulseOfCurve.js';
import type { LibraryCurve, TraceWindow } from './libraryCurve.js';

const RATE = 48_000;
/** 1.4 s: finer than a 48th of an octave nothing of a curve is known. */
const SIZE = 65_536;

/**
 * A curve as it would be with only a window of its impulse response about the arrival (`windowImpulse`); coherence stays what it was.
 * Below one over the window's length it says little.
 * @throws RangeError for a curve without a phase or an arrival, or a window of no length
 */
export function windowedCurve(curve: LibraryCurve, { beforeS, afterS }: TraceWindow): LibraryCurve {
  needWithin('windowedCurve', 'time ahead in s', beforeS, 0.0001, 1);
  needWithin('windowedCurve', 'time behind in s', afterS, 0.0001, 1);
  const impulse = impulseOfCurve(curve, RATE, SIZE);
  const arrival = findArrival(impulse);
  if (!arrival) throw new RangeError('windowedCurve: the curve has no arrival to place the window at');
  const centreS = arrival.onsetS;
  const seen = curveOfImpulse(windowImpulse(impulse, { centreS, leftS: beforeS, rightS: afterS }));
  const at = (of: Float64Array) => interpolateLog(seen.frequency, of, curve.frequency);
  const [re, im] = [at(seen.re), at(seen.im)];
  // nothing where the curve was not known
  const known = curve.re.map((v) => (Number.isFinite(v) ? 1 : NaN));
  return { ...curve, re: re.map((v, n) => v * known[n]!), im: im.map((v, n) => v * known[n]!) };
}
