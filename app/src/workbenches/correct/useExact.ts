import type { Correction, Project } from '@pebble-hall/core/project';
import { useEffect, useState } from 'react';
import { exactFilters, exactKey, type ExactFilters } from '../../parts/exactFilters';
import { isAbort } from '../../rig';
import { sentenceOf } from '../../store';

/** The hand has to rest for this long before the exact filters follow: they keep the worker from the quick designs of the next move. */
const REST_MS = 900;

export interface Exact {
  /** null until all are there; those of an earlier state are not shown */
  filters: ExactFilters | null;
  progress: { done: number; of: number } | null;
  problem: string | null;
}

/** The exact filters of a correction: they follow once the hand rests, and tell how far they are. */
export function useExact(project: Project, correction: Correction, ready: boolean): Exact {
  const [state, setState] = useState<Exact>({ filters: null, progress: null, problem: null });
  const key = exactKey(project, correction);
  useEffect(() => {
    if (!ready) return;
    const stop = new AbortController();
    const timer = setTimeout(() => {
      exactFilters(
        project,
        correction,
        (done, of) => setState((s) => ({ ...s, progress: { done, of } })),
        stop.signal,
      )
        .then((filters) => {
          if (!stop.signal.aborted) setState({ filters, progress: null, problem: null });
        })
        .catch((error: unknown) => {
          if (!isAbort(error) && !stop.signal.aborted)
            setState({ filters: null, progress: null, problem: sentenceOf(error) });
        });
    }, REST_MS);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key changes with all that the filters rest on
  }, [key, ready]);
  return state.filters?.key === key ? state : { ...state, filters: null };
}
