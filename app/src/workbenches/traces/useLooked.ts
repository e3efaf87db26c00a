import type { Project, Sweep } from '@pebble-hall/core/project';
import type { Remote } from 'comlink';
import { useEffect, useState } from 'react';
import { traceKey, type TracePart } from '../../parts/designs';
import { isAbort } from '../../rig';
import { sentenceOf } from '../../store';
import type { LookApi } from '../../workers/look.worker';
import { lookWorker, provide } from './lookWorker';

export interface Looked<T> {
  /** null until it is there; while something else is asked for, what was there last */
  value: T | null;
  problem: string | null;
  busy: boolean;
}

/**
 * What the worker finds in some sweeps. Late answers are dropped.
 * @param what changes when the question does; the sweeps count by themselves
 * @param part curves where levels are asked for, impulse responses otherwise
 */
export function useLooked<T>(
  project: Project,
  sweeps: Sweep[],
  what: string,
  ask: (api: Remote<LookApi>, keys: string[]) => Promise<T>,
  part: TracePart = 'impulse',
): Looked<T> {
  const keys = sweeps.map((s) => traceKey(s, part));
  const question = `${what}\n${keys.join('\n')}`;
  const [looked, setLooked] = useState<{ question: string; value: T | null; problem: string | null }>({
    question: '',
    value: null,
    problem: null,
  });
  useEffect(() => {
    if (keys.length === 0) return setLooked({ question, value: null, problem: null });
    let late = false;
    void provide(project, sweeps, part)
      .then(() => lookWorker().call((api) => ask(api, keys)))
      .then(
        (value) => !late && setLooked({ question, value, problem: null }),
        (error: unknown) =>
          !late && !isAbort(error) && setLooked({ question, value: null, problem: sentenceOf(error) }),
      );
    return () => {
      late = true;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the question holds all that it depends on
  }, [question]);
  return { value: looked.value, problem: looked.problem, busy: looked.question !== question };
}
