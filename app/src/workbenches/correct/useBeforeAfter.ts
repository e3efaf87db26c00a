import type { ExactChannel } from '@pebble-hall/core/correct';
import type { BeforeAfter } from '@pebble-hall/core/views';
import type { Project } from '@pebble-hall/core/project';
import { useEffect, useState } from 'react';
import { designWorker, traceKey } from '../../parts/designs';
import { PROCESSOR } from '../../parts/exactFilters';
import { sweepOf } from '../../parts/progress';
import { sentenceOf } from '../../store';

export interface BeforeAfterState {
  /** null until it is worked out; never of an earlier filter */
  data: BeforeAfter | null;
  problem: string | null;
}
const NOTHING: BeforeAfterState = { data: null, problem: null };

/** What the filter of a channel does at the home spot in phase and time. `exact` null: nothing is asked for. */
export function useBeforeAfter(
  project: Project,
  channel: { id: string; name: string } | null,
  exact: ExactChannel | null,
): BeforeAfterState {
  const [state, setState] = useState<{ exact: ExactChannel; read: BeforeAfterState } | null>(null);
  const home = project.place.spots[0]!;
  useEffect(() => {
    if (!exact || !channel) return;
    let current = true;
    const sweep = sweepOf(project, home.id, channel.id);
    const read = async () => {
      if (!sweep) throw new Error(`there is no sweep of ${channel.name} at ${home.name} yet.`);
      const data = await designWorker().call((api) =>
        api.beforeAfter(traceKey(sweep), exact.fir, exact.sections, PROCESSOR.rate),
      );
      if (current) setState({ exact, read: { data, problem: null } });
    };
    read().catch(
      (error: unknown) => current && setState({ exact, read: { data: null, problem: sentenceOf(error) } }),
    );
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a new filter is a new object
  }, [exact, channel?.id]);
  return state && state.exact === exact ? state.read : NOTHING;
}
