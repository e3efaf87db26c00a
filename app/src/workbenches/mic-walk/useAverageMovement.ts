import { traceRef, type TraceRef } from '@pebble-hall/core/jobs';
import { fittedOf, usableSpots, type Project } from '@pebble-hall/core/project';
import type { AverageMovement } from '@pebble-hall/core/spots';
import type { Job } from '../../services/derivation';
import { runJob } from '../../services/jobs';
import { useDerived } from '../../services/useDerived';

type Moved = AverageMovement & { spotName: string; channel: string };

interface Asked {
  channel: string;
  band: { from: number; to: number };
  sources: TraceRef[];
  spotNames: string[];
}

/** The channel whose average moves most. */
async function worstOf(channels: Asked[], { signal }: Job): Promise<Moved | null> {
  let worst: Moved | null = null;
  for (const { channel, band, sources, spotNames } of channels) {
    const moved = await runJob('design.movement', { sources, band }, { signal });
    if (!moved || (worst && worst.meanDb >= moved.meanDb)) continue;
    worst = { ...moved, spotName: spotNames[moved.mostBy]!, channel };
  }
  return worst;
}

/** How much the averages still move when a spot is left out, over the channels that have two spots or more; null while unknown. */
export function useAverageMovement(project: Project): Moved | null {
  const nameOf = (spotId: string) => project.place.spots.find((s) => s.id === spotId)!.name;
  const channels = fittedOf(project).flatMap((l): Asked[] => {
    const { averaged } = usableSpots(project, l.id);
    if (averaged.length < 2) return [];
    return [
      {
        channel: l.name,
        band: l.role === 'subwoofer' ? { from: 30, to: 100 } : { from: 80, to: 12000 },
        sources: averaged.map((s) => traceRef(s, project.calibrations)),
        spotNames: averaged.map((s) => nameOf(s.spotId)),
      },
    ];
  });
  // a figure of interest only: without it the round goes on all the same
  return useDerived(channels.length > 0 ? channels : null, worstOf).value;
}
