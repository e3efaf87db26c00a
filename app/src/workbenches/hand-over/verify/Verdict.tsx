import type { MemoryLoad } from '@pebble-hall/core/project';
import { formatDb, formatHz } from '../../../charts/chartMath';
import { AGREES_DB } from './difference';
import type { Comparison } from './compareLoad';

/** Whether what was loaded does what was predicted, in one sentence. */
export function Verdict({ list, load }: { list: Comparison[]; load: MemoryLoad | null }) {
  if (!load) return <span className="quiet">Nothing has been loaded from this project yet.</span>;
  const done = list.flatMap((c) => (c.difference ? [c.difference] : []));
  if (done.length === 0)
    return <span>Memory {load.letter} is loaded. Measure again to see whether the prediction was true.</span>;
  const of =
    done.length < list.length
      ? `${done.length} of ${list.length} channels were`
      : `All ${list.length} channels were`;
  const largest = (all: typeof done) =>
    all.reduce((a, b) => (Math.abs(b.worstDb) > Math.abs(a.worstDb) ? b : a));
  const judged = done.filter((d) => d.isJudged);
  const open = done.length - judged.length;
  const notJudged =
    open > 0 ? ` ${open} of them ${open === 1 ? 'is' : 'are'} not judged: too near the noise.` : '';
  if (judged.length === 0)
    return <span className="attention">{of} measured again, and none is judged: too near the noise.</span>;
  const share =
    judged.reduce((sum, d) => sum + d.octaves - d.unjudged, 0) /
    judged.reduce((sum, d) => sum + d.octaves, 0);
  if (judged.every((d) => d.agrees)) {
    const most = Math.abs(largest(judged).worstDb);
    return (
      <span className={open > 0 ? '' : 'good'}>
        {of} measured again. {open > 0 ? 'Those that are judged' : 'They'} do what was predicted,{' '}
        {most <= AGREES_DB
          ? `within ${most.toFixed(2)} dB`
          : `within ${AGREES_DB} dB and what noise explains at ${formatHz(largest(judged).worstAt)}`}
        , judged over {Math.round(100 * share)} % of their spans.{notJudged}
      </span>
    );
  }
  const wrong = judged.filter((d) => !d.agrees);
  const worst = largest(wrong);
  // what is inverted, exchanged or distorts may have the level that was predicted
  const how =
    Math.abs(worst.worstDb) > AGREES_DB
      ? `The largest miss is ${formatDb(worst.worstDb)} at ${formatHz(worst.worstAt)}`
      : `${wrong.length} of them ${wrong.length === 1 ? 'has' : 'have'} the level that was predicted, and something else is wrong`;
  return (
    <span className="attention">
      {of} measured again. {how}: choose the channel to see why.{notJudged}
    </span>
  );
}
