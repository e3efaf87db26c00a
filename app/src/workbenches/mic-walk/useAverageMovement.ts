import type { Project } from '@pebble-hall/core/project';
import type { AverageMovement } from '@pebble-hall/core/spots';
import { useEffect, useMemo, useState } from 'react';
import { designWorker, provideTraces, traceKey } from '../../parts/designs';
import { fittedOf, usableSpots } from '../../parts/progress';

/** How much the averages still move when a spot is left out, over the channels that have two spots or more; null while unknown. */
export function useAverageMovement(
  project: Project,
): (AverageMovement & { spotName: string; channel: string }) | null {
  const [found, setFound] = useState<{
    key: string;
    worst: (AverageMovement & { spotName: string; channel: string }) | null;
  }>();
  const jobs = useMemo(
    () =>
      fittedOf(project).flatMap((l) => {
        const { averaged } = usableSpots(project, l.id);
        return averaged.length < 2 ? [] : [{ l, averaged }];
      }),
    [project],
  );
  const key = jobs.map(({ averaged }) => averaged.map((s) => traceKey(s)).join(' ')).join('|');
  useEffect(() => {
    let current = true;
    const work = async () => {
      let worst: (AverageMovement & { spotName: string; channel: string }) | null = null;
      for (const { l, averaged } of jobs) {
        await provideTraces(averaged, project.calibrations);
        const band = l.role === 'subwoofer' ? { from: 30, to: 100 } : { from: 80, to: 12000 };
        const moved = await designWorker().call((api) =>
          api.movement(
            averaged.map((s) => traceKey(s)),
            band,
          ),
        );
        if (!moved || (worst && worst.meanDb >= moved.meanDb)) continue;
        const spotName = project.place.spots.find((s) => s.id === averaged[moved.mostBy]!.spotId)!.name;
        worst = { ...moved, spotName, channel: l.name };
      }
      if (current) setFound({ key, worst });
    };
    // a figure of interest only: without it the round goes on all the same
    work().catch(() => undefined);
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key names all sweeps and calibrations
  }, [key]);
  return found?.key === key ? found.worst : null;
}
