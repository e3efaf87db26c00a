import { changedSince, type Project } from '@pebble-hall/core/project';
import { OCTAVES } from '@pebble-hall/core/room';
import { useMemo } from 'react';
import { useJob } from '../../services/useJob';
import { askedOf, type Runs } from './useRuns';

/** T20 of the shown run per octave, mean over its receivers; null where there is none, or the room has changed since. */
export function useTracedTimes(project: Project, { shown, states }: Runs) {
  const isNow = shown !== null && changedSince(shown, project.place) === null;
  const { value } = useJob('rays.read', isNow ? askedOf(shown, states[shown.id]) : null);
  return useMemo(() => {
    if (!value || !shown) return null;
    const times = OCTAVES.map((_, o) => {
      const known = value.receivers.map((r) => r.figures[o]!.t20).filter(Number.isFinite);
      return known.length > 0 ? known.reduce((a, b) => a + b, 0) / known.length : NaN;
    });
    const { length } = value.receivers;
    return { times, name: shown.name, receivers: length === 1 ? '1 receiver' : `${length} receivers` };
  }, [value, shown]);
}
