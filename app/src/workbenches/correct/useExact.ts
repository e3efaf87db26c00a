import { type Correction, type Project, filterPart } from '@pebble-hall/core/project';
import { designGround, type DesignGround } from '@pebble-hall/core/jobs';
import { exactFilters, type ExactFilters } from '../../services/exactFilters';
import { runLong } from '../../services/jobs';
import { sharedJob } from '../../services/sharedJob';
import { useDerived } from '../../services/useDerived';

/** The hand has to rest for this long before the exact filters follow: they keep the worker from the quick designs of the next move. */
const OPTIONS = { restMs: 900 };

export interface Exact {
  /** null until all are there; never those of another state */
  filters: ExactFilters | null;
  progress: { done: number; of: number } | null;
  problem: string | null;
}

interface Asked {
  ground: DesignGround;
  correction: Correction;
}

/** Goes on while one steps from stone to stone; the next correction ends it. */
const make = sharedJob(({ ground, correction }: Asked, { signal, onProgress }) =>
  runLong(
    'Making filters',
    (job) =>
      exactFilters(ground, correction, {
        signal: job.signal,
        onProgress: (share) => {
          job.onProgress(share);
          onProgress(share);
        },
      }),
    signal,
  ),
);

/** The exact filters of a correction: they follow once the hand rests, and tell how far they are. @param channels how many */
export function useExact(
  project: Project,
  correction: Correction,
  isReady: boolean,
  channels: number,
): Exact {
  const asked = { ground: designGround(project), correction: filterPart(correction) };
  const { value, problem, share } = useDerived(isReady ? asked : null, make, OPTIONS);
  const progress = share === null ? null : { done: Math.round(share * channels), of: channels };
  return { filters: value, progress, problem };
}
