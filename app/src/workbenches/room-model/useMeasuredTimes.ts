import { FIGURE_OCTAVES, overSpots } from '@pebble-hall/core/acoustics';
import { viewedRef } from '@pebble-hall/core/jobs';
import { fittedOf, usableSpots, type Project } from '@pebble-hall/core/project';
import { useMemo } from 'react';
import { useJob } from '../../services/useJob';

/** T20 of the walk per octave, mean over the spots of the full-range channel that was swept at most of them; null where none was. */
export function useMeasuredTimes(project: Project) {
  const swept = useMemo(() => {
    const all = fittedOf(project)
      .filter((l) => l.role === 'full range')
      .map((channel) => ({ channel, sweeps: usableSpots(project, channel.id).averaged }));
    const most = all.reduce<(typeof all)[number] | null>(
      (a, b) => (b.sweeps.length > (a?.sweeps.length ?? 0) ? b : a),
      null,
    );
    return most && { ...most, refs: most.sweeps.map((s) => viewedRef(s, project)) };
  }, [project]);
  const { value } = useJob('views.figures', swept?.refs ?? null);
  return useMemo(() => {
    const spots = (value ?? []).filter((v) => v !== null);
    if (!swept || spots.length === 0) return null;
    const times = FIGURE_OCTAVES.map((_, o) => {
      const { mean, count } = overSpots(spots.map((s) => s[o]!.t20));
      return count > 0 ? mean : NaN;
    });
    return { times, name: swept.channel.name, spots: spots.length };
  }, [value, swept]);
}
