import { isEqual } from 'es-toolkit';
import { abortError } from '../ports/abort';
import type { Compute } from './derivation';

interface Running<Inputs, T> {
  of: Inputs;
  result: Promise<T>;
  stop: AbortController;
  /** how far it is, 0 to 1 */
  at: { share: number };
  listeners: Set<(share: number) => void>;
}

/**
 * A long job that belongs to nobody who looks: it goes on when they step away, who asks for the same joins it, and only
 * another question, or `compute` itself, ends it.
 */
export function sharedJob<Inputs, T>(compute: Compute<Inputs, T>): Compute<Inputs, T> {
  let running: Running<Inputs, T> | null = null;

  const begin = (of: Inputs): Running<Inputs, T> => {
    const stop = new AbortController();
    const listeners = new Set<(share: number) => void>();
    const at = { share: 0 };
    const onProgress = (share: number) => {
      at.share = share;
      for (const tell of listeners) tell(share);
    };
    const result = Promise.resolve(compute(of, { signal: stop.signal, onProgress }));
    const begun: Running<Inputs, T> = { of, result, stop, at, listeners };
    const ended = () => void (running = running === begun ? null : running);
    result.then(ended, ended);
    return begun;
  };

  return (inputs, { signal, onProgress }) => {
    if (!running || !isEqual(running.of, inputs)) {
      running?.stop.abort();
      running = begin(inputs);
    }
    const { result, at, listeners } = running;
    listeners.add(onProgress);
    onProgress(at.share);
    return new Promise<T>((resolve, reject) => {
      const leave = () => {
        listeners.delete(onProgress);
        reject(abortError());
      };
      signal.addEventListener('abort', leave, { once: true });
      result.then(resolve, reject).finally(() => signal.removeEventListener('abort', leave));
    });
  };
}
