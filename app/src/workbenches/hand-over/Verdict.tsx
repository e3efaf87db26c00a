import type { MemoryLoad } from '@pebble-hall/core/project';
import { formatDb, formatHz } from '../../parts/chartMath';
import { AGREES_DB } from './missReasons';
import type { Comparison } from './useComparison';

/** Whether what was loaded does what was predicted, in one sentence. */
export function Verdict({ list, load }: { list: Comparison[]; load: MemoryLoad | null }) {
  if (!load) return <span className="quiet">Nothing has been loaded from this project yet.</span>;
  const done = list.filter((c) => c.difference);
  if (done.length === 0)
    return <span>Memory {load.letter} is loaded. Measure again to see whether the prediction was true.</span>;
  const worst = done.reduce((a, b) =>
    Math.abs(b.difference!.worstDb) > Math.abs(a.difference!.worstDb) ? b : a,
  );
  const most = Math.abs(worst.difference!.worstDb);
  const of =
    done.length < list.length
      ? `${done.length} of ${list.length} channels were`
      : `All ${list.length} channels were`;
  return most <= AGREES_DB ? (
    <span className="good">
      {of} measured again. They do what was predicted, within {most.toFixed(2)} dB.
    </span>
  ) : (
    <span className="attention">
      {of} measured again. The largest miss is {formatDb(worst.difference!.worstDb)} at{' '}
      {formatHz(worst.difference!.worstAt)}: choose the channel to see why.
    </span>
  );
}
