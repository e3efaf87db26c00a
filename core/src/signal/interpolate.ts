import { needAscending, needLevels } from '../limits/index.js';
import type { RealArray } from './types.js';

/**
 * Values of a curve at other frequencies, linear over log frequency; flat beyond its ends.
 * @param frequency Hz, above 0, ascending, at least one
 * @returns as long as `at`; 0 Hz gives the first value
 */
export function interpolateLog(frequency: Float64Array, values: RealArray, at: Float64Array): Float64Array {
  return interpolated('interpolateLog', frequency, values, at, () => (i, t) => {
    return values[i]! + t * (values[i + 1]! - values[i]!);
  });
}

/**
 * The same without a bend at its points, and never beyond the two that it lies between: cubic, with the slopes after Steffen (1990).
 * @param frequency Hz, above 0, ascending, at least one
 * @returns as long as `at`; 0 Hz gives the first value
 */
export function interpolateSmooth(
  frequency: Float64Array,
  values: RealArray,
  at: Float64Array,
): Float64Array {
  return interpolated('interpolateSmooth', frequency, values, at, () => {
    const x = frequency.map(Math.log);
    const slopes = steffenSlopes(x, values);
    return (i, t) => {
      const width = x[i + 1]! - x[i]!;
      const rise = values[i + 1]! - values[i]!;
      const a = slopes[i]! * width;
      const b = slopes[i + 1]! * width;
      return values[i]! + t * (a + t * (3 * rise - 2 * a - b + t * (a + b - 2 * rise)));
    };
  });
}

/** @param begin once the curve is known to be one. @returns what lies between a point and the next, at a share of their distance over log frequency */
function interpolated(
  where: string,
  frequency: Float64Array,
  values: RealArray,
  at: Float64Array,
  begin: () => (point: number, share: number) => number,
): Float64Array {
  const n = frequency.length;
  needAscending(where, 'frequencies', frequency, 0);
  if (n < 1 || values.length !== n)
    throw new RangeError(`${where}: ${n} frequencies, ${values.length} values`);
  needLevels(where, 'values', values);
  const between = begin();
  const out = new Float64Array(at.length);
  let i = 0;
  for (let j = 0; j < at.length; j++) {
    const f = at[j]!;
    if (f <= frequency[0]!) out[j] = values[0]!;
    else if (f >= frequency[n - 1]!) out[j] = values[n - 1]!;
    else {
      if (frequency[i]! > f) i = 0; // `at` need not ascend, it is only faster
      while (frequency[i + 1]! < f) i++;
      out[j] = between(i, Math.log(f / frequency[i]!) / Math.log(frequency[i + 1]! / frequency[i]!));
    }
  }
  return out;
}

/** Slopes at the points of a curve: of the parabola through three of them, and no steeper than leaves it between its points. */
function steffenSlopes(x: Float64Array, values: RealArray): Float64Array {
  const rises = Float64Array.from(
    { length: x.length - 1 },
    (_, i) => (values[i + 1]! - values[i]!) / (x[i + 1]! - x[i]!),
  );
  const slopes = new Float64Array(x.length);
  if (rises.length === 0) return slopes;
  slopes[0] = rises[0]!;
  slopes[x.length - 1] = rises.at(-1)!;
  for (let i = 1; i < rises.length; i++) {
    const [before, after] = [rises[i - 1]!, rises[i]!];
    if (!(before * after > 0)) continue;
    const [h, g] = [x[i]! - x[i - 1]!, x[i + 1]! - x[i]!];
    const through = (before * g + after * h) / (g + h);
    const most = 2 * Math.min(Math.abs(before), Math.abs(after));
    slopes[i] = Math.sign(before) * Math.min(Math.abs(through), most);
  }
  return slopes;
}
