import { needAscending, needLevels } from '../limits/index.js';
import type { RealArray } from './types.js';

/**
 * Values of a curve at other frequencies, linear over log frequency; flat beyond its ends.
 * @param frequency Hz, above 0, ascending, at least one
 * @returns as long as `at`; 0 Hz gives the first value
 */
export function interpolateLog(frequency: Float64Array, values: RealArray, at: Float64Array): Float64Array {
  const n = frequency.length;
  needAscending('interpolateLog', 'frequencies', frequency, 0);
  if (n < 1 || values.length !== n)
    throw new RangeError(`interpolateLog: ${n} frequencies, ${values.length} values`);
  needLevels('interpolateLog', 'values', values);
  const out = new Float64Array(at.length);
  let i = 0;
  for (let j = 0; j < at.length; j++) {
    const f = at[j]!;
    if (f <= frequency[0]!) out[j] = values[0]!;
    else if (f >= frequency[n - 1]!) out[j] = values[n - 1]!;
    else {
      if (frequency[i]! > f) i = 0; // `at` need not ascend, it is only faster
      while (frequency[i + 1]! < f) i++;
      const t = Math.log(f / frequency[i]!) / Math.log(frequency[i + 1]! / frequency[i]!);
      out[j] = values[i]! + t * (values[i + 1]! - values[i]!);
    }
  }
  return out;
}
