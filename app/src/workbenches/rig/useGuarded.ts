import { useState } from 'react';
import { exclusively } from '../../services/running';
import { clearProblem, notify, notifyProblem } from '../../services/notify';
import { isAbort } from '../../ports/abort';
import { sentenceOf } from '../../store';

export interface Guarded {
  /** share of what is under way, 0 to 1 */
  progress: number;
  setProgress: (share: number) => void;
  /** Runs something that sounds; what goes wrong is told, what was done so far is kept. */
  run: (what: string, work: (signal: AbortSignal) => Promise<void>) => Promise<void>;
}

export function useGuarded(): Guarded {
  const [progress, setProgress] = useState(0);
  const run: Guarded['run'] = async (what, work) => {
    setProgress(0);
    clearProblem();
    try {
      await exclusively(what, work);
    } catch (error) {
      if (isAbort(error)) notify(`${what}: stopped. What was done so far is kept.`);
      else notifyProblem(`${what}: ${sentenceOf(error)}`);
    }
  };
  return { progress, setProgress, run };
}
