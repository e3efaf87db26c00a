import type { ListeningChain, Project } from '@pebble-hall/core/project';
import { logGrid } from '@pebble-hall/core/signal';
import { useEffect, useState } from 'react';
import { designWorker } from '../../parts/designs';
import { designKey } from '../../parts/progress';
import { sentenceOf } from '../../store';
import { waysOf, type Candidate, type Place } from './candidates';

export const grid = logGrid();
/** What an output is by itself, heard where no room is in between. */
const ITSELF = {
  key: '',
  samples: Float32Array.of(1, ...new Float32Array(63)),
  rate: 48000,
  zero: 0,
  calibration: null,
};

/** Level of the left channel in each candidate as it is heard, its bass from the subwoofers included; dB on the grid. */
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
      for (const c of candidates) {
        const own = c.source === chain?.source && c.name === chain.name ? chain : null;
        const ways = await waysOf(project, c, place, own);
        if (!current) return;
        const left = ways.filter((w) => w.channel === 0);
        const levels = await designWorker().call((api) =>
          api.heard(left.map(({ impulse, ...way }) => ({ ...way, trace: impulse ?? ITSELF }))),
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
