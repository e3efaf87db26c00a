import type { ListeningChain, Project } from '@pebble-hall/core/project';
import { logGrid } from '@pebble-hall/core/signal';
import { useEffect, useState } from 'react';
import { designWorker, traceOf } from '../../parts/designs';
import { designKey, sweepOf } from '../../parts/progress';
import { sentenceOf } from '../../store';
import { waysOf, type Candidate, type Place } from './candidates';

export const grid = logGrid();

/** Level of the left channel in each candidate as it is heard; dB on the grid. */
export function useHeardLevels(
  project: Project,
  candidates: Candidate[],
  place: Place,
  chain: ListeningChain | null,
): { list: { name: string; left: Float64Array }[]; problem: string | null } {
  const [state, setState] = useState<{
    list: { name: string; left: Float64Array }[];
    problem: string | null;
  }>({
    list: [],
    problem: null,
  });
  const key = JSON.stringify([
    place,
    chain,
    candidates,
    project.variants.map((v) => designKey(project, v.correction)),
  ]);
  useEffect(() => {
    let current = true;
    if (place.through === 'headphones') return; // their own curves are drawn then
    const read = async () => {
      const list: { name: string; left: Float64Array }[] = [];
      const sweep = sweepOf(project, place.spotId, place.leftId);
      for (const c of candidates) {
        const own = c.source === chain?.source && c.name === chain.name ? chain : null;
        const [left] = await waysOf(project, c, place, own);
        if (!left || !current) return;
        const trace =
          place.through === 'room' && sweep
            ? await traceOf(sweep, project.calibrations)
            : {
                key: '',
                samples: Float32Array.of(1, ...new Float32Array(63)),
                rate: 48000,
                zero: 0,
                calibration: null,
              };
        const levels = await designWorker().call((api) =>
          api.predicted(trace, left.before, left.after, left.fir),
        );
        list.push({ name: c.name, left: levels });
      }
      if (current) setState({ list, problem: null });
    };
    read().catch((error: unknown) => current && setState({ list: [], problem: sentenceOf(error) }));
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key says all that it rests on
  }, [key]);
  return state;
}
