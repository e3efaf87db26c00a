import { FIGURE_OCTAVES, overSpots, type OctaveFigures } from '@pebble-hall/core/acoustics';
import { viewedRef } from '@pebble-hall/core/jobs';
import type { Project } from '@pebble-hall/core/project';
import { useMemo } from 'react';
import { useJob } from '../../services/useJob';
import { sweptMost } from './sweptMost';

/** Figures of the walk at its spots. */
export interface MeasuredFigures {
  /** of the full-range channel that was swept at most spots */
  channel: { id: string; name: string };
  /** per octave, by the spot's id */
  at: ReadonlyMap<string, OctaveFigures[]>;
}

/** What was measured of the room; null where nothing was. */
export function useMeasuredFigures(project: Project): MeasuredFigures | null {
  const swept = useMemo(() => {
    const most = sweptMost(project);
    return most && { ...most, refs: most.sweeps.map((s) => viewedRef(s, project)) };
  }, [project]);
  const { value } = useJob('views.figures', swept?.refs ?? null);
  return useMemo(() => {
    const at = new Map(
      (value ?? []).flatMap((figures, i): [string, OctaveFigures[]][] => {
        const sweep = swept?.sweeps[i];
        return figures && sweep ? [[sweep.spotId, figures]] : [];
      }),
    );
    return swept && at.size > 0 ? { channel: swept.channel, at } : null;
  }, [value, swept]);
}

/** T20 of the walk per octave, mean over its spots. */
export function useMeasuredTimes(project: Project) {
  const measured = useMeasuredFigures(project);
  return useMemo(() => {
    if (!measured) return null;
    const spots = [...measured.at.values()];
    const times = FIGURE_OCTAVES.map((_, o) => {
      const { mean, count } = overSpots(spots.map((s) => s[o]!.t20));
      return count > 0 ? mean : NaN;
    });
    return { times, name: measured.channel.name, spots: spots.length };
  }, [measured]);
}
