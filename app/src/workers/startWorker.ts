import { releaseProxy, wrap, type Remote } from 'comlink';

/** A worker that can be called and stopped; calls that a stop cuts off are rejected, never left pending. */
export interface RunningWorker<Api> {
  /** @param signal stops the worker when it aborts: a computation cannot be interrupted otherwise; the next call starts a new one */
  call<T>(use: (api: Remote<Api>) => Promise<T>, signal?: AbortSignal): Promise<T>;
  stop(): void;
}

export function startWorker<Api>(make: () => Worker): RunningWorker<Api> {
  let running: { worker: Worker; api: Remote<Api> } | null = null;
  const cutOff = new Set<(error: unknown) => void>();
  const stop = () => {
    if (!running) return;
    running.api[releaseProxy]();
    running.worker.terminate();
    running = null;
    const error = new DOMException('Cancelled.', 'AbortError');
    for (const reject of cutOff) reject(error);
    cutOff.clear();
  };
  return {
    stop,
    call: (use, signal) =>
      new Promise((resolve, reject) => {
        if (signal?.aborted) return reject(new DOMException('Cancelled.', 'AbortError'));
        if (!running) {
          const worker = make();
          worker.addEventListener('error', (event) => {
            const error = new Error(
              `A computation failed to start: ${event.message || 'its script could not be loaded'}.`,
            );
            for (const cut of cutOff) cut(error);
            cutOff.clear();
          });
          running = { worker, api: wrap<Api>(worker) };
        }
        const onAbort = () => stop();
        signal?.addEventListener('abort', onAbort);
        cutOff.add(reject);
        use(running.api)
          .then(resolve, reject)
          .finally(() => {
            cutOff.delete(reject);
            signal?.removeEventListener('abort', onAbort);
          });
      }),
  };
}
