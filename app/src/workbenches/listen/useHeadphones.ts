import { STARTING_GOAL } from '@pebble-hall/core/correct';
import type { Headphones } from '@pebble-hall/core/project';
import { useEffect, useState } from 'react';
import { PROCESSOR } from '../../parts/exactFilters';
import { tellProblem } from '../../parts/tell';
import { sentenceOf } from '../../store';
import type { CorrectedHeadphones, ListenApi } from '../../workers/listen.worker';
import type { RunningWorker } from '../../workers/startWorker';

/** The correction of the headphones that are chosen; null while it is worked out, and without any. */
export function useHeadphones(
  headphones: Headphones | null,
  worker: () => RunningWorker<ListenApi>,
): CorrectedHeadphones | null {
  const [state, setState] = useState<{ of: Headphones; made: CorrectedHeadphones } | null>(null);
  useEffect(() => {
    if (!headphones) return;
    let current = true;
    const { frequency, levelDb, target, strength } = headphones;
    worker()
      .call((api) =>
        api.headphones({ frequency, levelDb }, { ...STARTING_GOAL, target, strength }, PROCESSOR),
      )
      .then((made) => current && setState({ of: headphones, made }))
      .catch((error: unknown) => current && tellProblem(sentenceOf(error)));
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the worker stays the same
  }, [headphones]);
  return state && state.of === headphones ? state.made : null;
}
