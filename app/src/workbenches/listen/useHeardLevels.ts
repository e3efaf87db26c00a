import type { ListeningChain, Project } from '@pebble-hall/core/project';
import { logGrid } from '@pebble-hall/core/signal';
import type { Job } from '../../services/derivation';
import { runJob } from '../../services/jobs';
import { useDerived } from '../../services/useDerived';
import { waysOf, type Candidate, type Place } from './candidates';

export const grid = logGrid();
interface Asked {
  project: Project;
  candidates: Candidate[];
  place: Place;
  chain: ListeningChain | null;
}
interface Heard {
  name: string;
  left: Float64Array;
}

async function read({ project, candidates, place, chain }: Asked, { signal }: Job): Promise<Heard[]> {
  const list: Heard[] = [];
  for (const c of candidates) {
    const own = c.source === chain?.source && c.name === chain.name ? chain : null;
    const outputs = await waysOf(project, c, place, own);
    signal.throwIfAborted();
    const left = outputs.filter((o) => o.channel === 0);
    list.push({ name: c.name, left: await runJob('listen.levels', left, { signal }) });
  }
  return list;
}

const NONE: Heard[] = [];

/** Level of the left channel in each candidate as it is heard, its bass from the subwoofers included; dB on the grid. */
export function useHeardLevels(
  project: Project,
  candidates: Candidate[],
  place: Place,
  chain: ListeningChain | null,
): { list: Heard[]; problem: string | null } {
  // headphones have curves of their own
  const asked = place.through === 'headphones' ? null : { project, candidates, place, chain };
  const { value, problem } = useDerived(asked, read);
  return { list: value ?? NONE, problem };
}
