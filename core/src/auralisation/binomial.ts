import { needWhole } from '../limits/index.js';
/**
 * Probability that pure chance gives at least `right` of `turns` when each turn has `share` to be right: the upper tail of
 * the binomial distribution.
 * @throws RangeError for counts that are no counts, or a share outside 0 to 1
 */
export function chanceOf(right: number, turns: number, share: number): number {
  if (!(Number.isInteger(right) && Number.isInteger(turns) && right >= 0 && turns >= right))
    throw new RangeError(`chanceOf: want 0 <= right <= turns, got ${right} and ${turns}`);
  if (!(share >= 0 && share <= 1)) throw new RangeError(`chanceOf: share must be 0 to 1, got ${share}`);
  needWhole('chanceOf', 'turns', turns, 0, 1e6);
  let sum = 0;
  for (let k = right; k <= turns; k++)
    sum += Math.exp(logChoose(turns, k)) * share ** k * (1 - share) ** (turns - k);
  return Math.min(1, sum);
}

function logChoose(n: number, k: number): number {
  let log = 0;
  for (let i = 1; i <= k; i++) log += Math.log((n - k + i) / i);
  return log;
}
