import { needAscending } from '../limits/index.js';

/** Further from its nearest band, in steps between bands, a spectrum says nothing. */
const REACH = 0.75;

/**
 * The levels of a spectrum at other points, as steps: each point has the level of the band whose centre is nearest, on a logarithmic
 * axis. Where bands end, nothing.
 * @param frequency centres of its bands, Hz, at least two
 * @param at Hz, ascending
 */
export function spectrumOnGrid(
  frequency: Float64Array,
  levelDb: Float64Array,
  at: Float64Array,
): Float64Array {
  needAscending('spectrumOnGrid', 'centres', frequency, 0);
  if (frequency.length < 2 || levelDb.length !== frequency.length)
    throw new RangeError(`spectrumOnGrid: ${frequency.length} centres, ${levelDb.length} levels`);
  const last = frequency.length - 1;
  const log = frequency.map(Math.log);
  let k = 0;
  return at.map((hz) => {
    const x = Math.log(hz);
    while (k < last && Math.abs(log[k + 1]! - x) <= Math.abs(log[k]! - x)) k++;
    const step = k === last || (k > 0 && x < log[k]!) ? log[k]! - log[k - 1]! : log[k + 1]! - log[k]!;
    return Math.abs(x - log[k]!) <= REACH * step ? levelDb[k]! : NaN;
  });
}
