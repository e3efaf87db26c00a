import { needAbove, needFinite } from '../limits/index.js';
import type { RealArray } from '../signal/index.js';
import { bandSignals } from './octaveFilter.js';

/** Interaural cross-correlation coefficients of octaves: of the first 80 ms, of what follows, and of both; NaN where nothing is. */
export interface InterauralCorrelation {
  early: number[];
  late: number[];
  all: number[];
}

/** The head lets sound come so much later to one ear, and a little more; seconds (ISO 3382-1:2009, B.1). */
const MOST_LAG_S = 0.001;
const EARLY_S = 0.08;
/** What one just notices of a coefficient (ISO 3382-1:2009, table A.1). */
export const IACC_NOTICEABLE = 0.075;

/**
 * IACC by octaves (ISO 3382-1:2009, annex B): the largest magnitude of the normalised cross-correlation of both ears' responses within
 * 1 ms.
 * @param zero index of the direct sound
 * @param centres of the octaves, Hz, below half the rate
 * @throws RangeError for ears of unlike length, or what is no response
 */
export function interauralCorrelation(
  left: RealArray,
  right: RealArray,
  rate: number,
  zero: number,
  centres: readonly number[],
): InterauralCorrelation {
  needFinite('interauralCorrelation', 'left ear', left);
  needFinite('interauralCorrelation', 'right ear', right);
  needAbove('interauralCorrelation', 'rate', rate, 0);
  if (left.length !== right.length)
    throw new RangeError(`interauralCorrelation: the ears have ${left.length} and ${right.length} samples`);
  const most = Math.round(MOST_LAG_S * rate);
  const bands = centres.map((c) => ({ from: c / Math.SQRT2, to: c * Math.SQRT2 }));
  const [ls, rs] = [bandSignals(left, bands, rate), bandSignals(right, bands, rate)];
  const from = Math.max(0, zero - most);
  const edge = Math.min(left.length, zero + Math.round(EARLY_S * rate));
  const out: InterauralCorrelation = { early: [], late: [], all: [] };
  bands.forEach((_, b) => {
    const [l, r] = [ls[b]!, rs[b]!];
    const [early, late] = [windowOf(l, r, from, edge, most), windowOf(l, r, edge, l.length, most)];
    out.early.push(coefficient([early]));
    out.late.push(coefficient([late]));
    out.all.push(coefficient([early, late]));
  });
  return out;
}

/** Energies of both ears in a window, and their products over the lags. */
interface Products {
  left: number;
  right: number;
  lags: Float64Array;
}

function windowOf(l: Float64Array, r: Float64Array, from: number, to: number, most: number): Products {
  const lags = new Float64Array(2 * most + 1);
  let [left, right] = [0, 0];
  for (let i = from; i < to; i++) {
    left += l[i]! ** 2;
    right += r[i]! ** 2;
  }
  for (let lag = -most; lag <= most; lag++) {
    let sum = 0;
    const end = Math.min(to, r.length - lag);
    for (let i = Math.max(from, -lag); i < end; i++) sum += l[i]! * r[i + lag]!;
    lags[lag + most] = sum;
  }
  return { left, right, lags };
}

function coefficient(windows: readonly Products[]): number {
  const sum = (of: (w: Products) => number) => windows.reduce((total, w) => total + of(w), 0);
  const energy = Math.sqrt(sum((w) => w.left) * sum((w) => w.right));
  if (!(energy > 0)) return NaN;
  let largest = 0;
  for (let i = 0; i < windows[0]!.lags.length; i++)
    largest = Math.max(largest, Math.abs(sum((w) => w.lags[i]!)));
  return Math.min(1, largest / energy);
}
