import type { ChannelRequest } from '@pebble-hall/core/correct';
import { variantOf, type Project } from '@pebble-hall/core/project';
import { levelsAndDelays, type ChannelAtHome, type LevelAndDelay } from '@pebble-hall/core/alignment';
import { useEffect, useState } from 'react';
import { designWorker, homeKeyOf, traceKey } from '../../parts/designs';
import type { ExactFilters } from '../../parts/exactFilters';
import { sweepOf } from '../../parts/progress';
import { sentenceOf } from '../../store';

export interface HomeReading {
  channels: ChannelAtHome[];
  suggested: LevelAndDelay[];
}

/** Level and arrival of every channel at the home spot after its correction, and what would bring them together. */
export function useAtHome(
  project: Project,
  requests: ChannelRequest[],
  filters: ExactFilters | null,
): { reading: HomeReading | null; problem: string | null } {
  const [state, setState] = useState<{
    key: string;
    reading: HomeReading | null;
    problem: string | null;
  } | null>(null);
  useEffect(() => {
    if (!filters) return;
    let current = true;
    const home = project.place.spots[0]!.id;
    const read = async () => {
      const channels: ChannelAtHome[] = [];
      const { correction } = variantOf(project);
      for (const request of requests) {
        const sweep = sweepOf(project, home, request.id);
        const filter = filters.exact.get(request.id);
        if (!sweep || !filter) continue;
        // subwoofers that work together are heard together
        const key = homeKeyOf(project, correction, request.id) ?? traceKey(sweep);
        const at = await designWorker().call((api) => api.atHome(request, key, filter.levelDb));
        const { role } = project.place.loudspeakers.find((l) => l.id === request.id)!;
        channels.push({ id: request.id, role, latencyS: filter.latencyS, ...at });
      }
      if (current)
        setState({
          key: filters.key,
          reading: channels.length > 0 ? { channels, suggested: levelsAndDelays(channels) } : null,
          problem: channels.length > 0 ? null : 'There is no sweep at the home spot yet.',
        });
    };
    read().catch(
      (error: unknown) =>
        current && setState({ key: filters.key, reading: null, problem: sentenceOf(error) }),
    );
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key of the filters changes with all that they rest on
  }, [filters?.key]);
  const fresh = state && filters?.key === state.key ? state : null;
  return { reading: fresh?.reading ?? null, problem: fresh?.problem ?? null };
}
