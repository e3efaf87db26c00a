import { smoothPower } from '../signal/index.js';

/** Below this a sweep's band ends, Hz: what a response holds there is leakage. */
const LOWEST_HZ = 20;
/** A response is known down to where its level (1/3 octave) lies this far below its loudest; what lies deeper may be noise. */
const DEEP_DB = 45;
/** The end of the band is read from so many octaves above its lowest known point on. */
const READ_OCTAVES = 3;
const PER_OCTAVE = 12;
const ORDERS = [1, 2, 3, 4, 5, 6, 7, 8];
/** A steeper end must fit better by this share for each order more: a room's lowest mode alone looks like a steep one. */
const DEARER = 0.05;
/** Where the lowest known point lies this far below the loudest, the fall there is read instead: it goes on as it is. */
const FALLEN_DB = 20;
const FALL_POINTS = 5;
const STEEPEST = 16;
/** A room's peaks and dips count no more than this, nepers, in the fit. */
const MOST_MISFIT = 0.7;
/** A roll-off must explain the end better than a level end does, by this share of the misfit. */
const BETTER = 0.9;

/** A response's magnitude with its lows continued below what was measured. */
export interface ContinuedLows {
  /** natural logarithm of the magnitude, bins 0 to size/2 */
  logMagnitude: Float64Array;
  /** down to here it is as measured, Hz */
  fromHz: number;
}

/**
 * The logarithm of a magnitude, continued below what a sweep can know: by its own slope where it has fallen far already, else
 * by the Butterworth high-pass that fits its low end best. The minimum phase of the lows rests on how the response goes on below them, and there a measurement holds but leakage.
 * @param power of bins 0 to size/2
 * @param binHz distance of the bins
 * @param floor least magnitude that is followed, as a share of the largest
 * @returns null for a response without any level
 */
export function continueLows(power: Float64Array, binHz: number, floor: number): ContinuedLows | null {
  const most = power.reduce((a, b) => Math.max(a, b), 0);
  if (!(most > 0)) return null;
  const logMagnitude = power.map((p) => 0.5 * Math.log(Math.max(p, most * floor * floor)));
  const top = (power.length - 1) * binHz;
  const bins = power.map((_, k) => k * binHz);
  const points = Float64Array.from(
    { length: Math.floor(PER_OCTAVE * Math.log2(top / LOWEST_HZ)) },
    (_, i) => LOWEST_HZ * 2 ** (i / PER_OCTAVE),
  );
  const wide = smoothPower(bins, power, 3, points);
  const loudest = wide.reduce((a, b) => Math.max(a, b), 0);
  const first = wide.findIndex((p) => p > loudest * 10 ** (-DEEP_DB / 10));
  if (first < 0) return null;
  const fromHz = points[first]!;
  const level = smoothPower(bins, power, 12, points)
    .slice(first, first + READ_OCTAVES * PER_OCTAVE)
    .map((p) => 0.5 * Math.log(Math.max(p, most * floor * floor)));
  const hasFallen = wide[first]! < loudest * 10 ** (-FALLEN_DB / 10);
  const end = hasFallen ? null : lowEnd(level);
  const order = hasFallen ? slopeOf(level.slice(0, FALL_POINTS)) : (end?.order ?? 0);
  const fallAt = (f: number) =>
    end ? fall(fromHz * 2 ** (end.above / PER_OCTAVE), order, f) : order * Math.log(f / fromHz);
  const known = Math.ceil(fromHz / binHz);
  const anchor = level[0]! - fallAt(fromHz);
  for (let k = 1; k < known; k++) logMagnitude[k] = anchor + fallAt(k * binHz);
  // of 1 - z^-1, a zero at bin 0, the mean logarithm over all bins is 0 when bin 0 counts as bin 1 over 2 pi
  if (known > 1) logMagnitude[0] = logMagnitude[1]! - order * Math.log(2 * Math.PI);
  return { logMagnitude, fromHz };
}

/** By how much points 1/12 octave apart rise, nepers for each factor e of frequency, which is the order of a high-pass; least squares. */
function slopeOf(level: Float64Array): number {
  const points = level.length;
  const middle = (points - 1) / 2;
  let [up, down] = [0, 0];
  for (let i = 0; i < points; i++) {
    up += (i - middle) * level[i]!;
    down += (i - middle) ** 2;
  }
  const slope = down > 0 ? ((up / down) * PER_OCTAVE) / Math.LN2 : 0;
  return Math.min(STEEPEST, Math.max(0, slope));
}

/** Natural logarithm of a Butterworth high-pass. */
const fall = (cornerHz: number, order: number, f: number): number =>
  -0.5 * Math.log1p((cornerHz / f) ** (2 * order));

/** `fall` of each order with its corner a number of steps above where it is read: an octave more below than there are points. */
const STEPS = (READ_OCTAVES + 1) * PER_OCTAVE;
const FALLS = ORDERS.map((order) =>
  Float64Array.from({ length: 2 * STEPS }, (_, i) => fall(2 ** ((i - STEPS) / PER_OCTAVE), order, 1)),
);

/**
 * The Butterworth high-pass whose magnitude fits best (least absolute deviation, at any level): its order, and its corner in
 * steps above the first point. Null where a level end fits as well.
 */
function lowEnd(level: Float64Array): { order: number; above: number } | null {
  const difference = new Float64Array(level.length);
  const sorted = new Float64Array(level.length);
  const misfitOf = (falls: Float64Array | undefined, above: number): number => {
    for (let i = 0; i < level.length; i++)
      difference[i] = level[i]! - (falls ? falls[above - i + STEPS]! : 0);
    sorted.set(difference);
    const middle = sorted.sort()[level.length >> 1]!;
    let sum = 0;
    for (const d of difference) sum += Math.min(MOST_MISFIT, Math.abs(d - middle));
    return sum;
  };
  let best: { order: number; above: number; misfit: number } | null = null;
  ORDERS.forEach((order, o) => {
    for (let above = -PER_OCTAVE; above < level.length; above++) {
      const misfit = misfitOf(FALLS[o], above) * (1 + DEARER * order);
      if (!best || misfit < best.misfit) best = { order, above, misfit };
    }
  });
  const found = best as { order: number; above: number; misfit: number } | null;
  return found && found.misfit < BETTER * misfitOf(undefined, 0) ? found : null;
}
