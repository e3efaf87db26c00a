import { levelsAndDelays, type ChannelAtHome, type LevelAndDelay } from '@pebble-hall/core/alignment';
import {
  designGround,
  homeSum,
  traceRef,
  type ChannelRequest,
  type DesignGround,
} from '@pebble-hall/core/jobs';
import {
  sweepOf,
  variantOf,
  type Correction,
  type Project,
  loudspeakerById,
  filterPart,
} from '@pebble-hall/core/project';
import type { Job } from '../../../services/derivation';
import { type ExactFilters } from '../../../services/exactFilters';
import { runJob } from '../../../services/jobs';
import { useDerived } from '../../../services/useDerived';

export interface HomeReading {
  channels: ChannelAtHome[];
  suggested: LevelAndDelay[];
}

interface Asked {
  ground: DesignGround;
  correction: Correction;
  requests: ChannelRequest[];
  filters: ExactFilters;
}

/** Levels and arrivals of all channels at the home spot after their correction. @throws Error without a sweep there */
export async function readAtHome(
  { ground, correction, requests, filters }: Asked,
  { signal }: Partial<Job> = {},
): Promise<HomeReading> {
  const home = ground.place.spots[0]!.id;
  const channels: ChannelAtHome[] = [];
  for (const request of requests) {
    const sweep = sweepOf(ground, home, request.id);
    const filter = filters.exact.get(request.id);
    if (!sweep || !filter) continue;
    // subwoofers that play together are heard together
    const source = homeSum(ground, correction, request.id) ?? traceRef(sweep, ground.calibrations);
    const at = await runJob('design.atHome', { request, source, filterDb: filter.levelDb }, { signal });
    const { role } = loudspeakerById(ground.place, request.id)!;
    channels.push({ id: request.id, role, latencyS: filter.latencyS, ...at });
  }
  if (channels.length === 0) throw new Error('There is no sweep at the home spot yet.');
  return { channels, suggested: levelsAndDelays(channels) };
}

/** Level and arrival of every channel at the home spot after its correction, and what would bring them together. */
export function useAtHome(
  project: Project,
  requests: ChannelRequest[],
  filters: ExactFilters | null,
): { reading: HomeReading | null; problem: string | null } {
  const { value, problem } = useDerived(
    filters && {
      ground: designGround(project),
      correction: filterPart(variantOf(project).correction),
      requests,
      filters,
    },
    readAtHome,
  );
  return { reading: value, problem };
}
