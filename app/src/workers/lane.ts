import { proxy, releaseProxy, transfer as handOver, wrap, type Remote } from 'comlink';
import { abortError } from '../ports/abort';
import type { Handlers, JobServer } from './serveJobs';
import { WorkerError } from './workerError';

/** What a job of a worker takes and gives. */
export type InputOf<Jobs, Name extends keyof Jobs> = Jobs[Name] extends (
  input: infer I,
  ...rest: never[]
) => unknown
  ? I
  : never;
export type ResultOf<Jobs, Name extends keyof Jobs> = Jobs[Name] extends (...args: never[]) => infer R
  ? Awaited<R>
  : never;

export interface JobOptions {
  signal?: AbortSignal | undefined;
  onProgress?: ((share: number) => void) | undefined;
  /** arrays and ports that are handed over instead of copied: they are of no use here afterwards */
  transfer?: (Float32Array | Float64Array | MessagePort)[];
  /** for what files of others may keep busy without end: after so long, or when cancelled, the worker itself is ended, ms */
  endsAfterMs?: number;
}

/** One worker and the jobs it does. */
export interface Lane<Jobs extends Handlers> {
  /** @throws AbortError when cancelled; Error when the worker could not be loaded, or what the job throws */
  run<Name extends keyof Jobs & string>(
    name: Name,
    input: InputOf<Jobs, Name>,
    options?: JobOptions,
  ): Promise<ResultOf<Jobs, Name>>;
  /** Ends the worker; what it was doing is rejected, and the next job starts another one. */
  stop(): void;
}

interface Running {
  worker: Worker;
  server: Remote<JobServer>;
  /** ends every call that is under way, with a reason */
  pending: Map<number, (reason: unknown) => void>;
}

const tookTooLong = (ms: number) =>
  `It was given up after ${ms / 1000} s: it is too large, or made to be so.`;

let jobs = 0;

/**
 * A worker that is started when it is first needed, and replaced when it dies.
 * @param onDeath told why it died of itself, for a worker that works on when no job is under way
 */
export function lane<Jobs extends Handlers>(
  make: () => Worker,
  onDeath: (reason: Error) => void = () => {},
): Lane<Jobs> {
  let running: Running | null = null;

  const end = (dead: Running, reason: unknown) => {
    if (running === dead) running = null;
    dead.server[releaseProxy]();
    dead.worker.terminate();
    for (const reject of dead.pending.values()) reject(reason);
    dead.pending.clear();
  };

  const start = (): Running => {
    const worker = make();
    const started: Running = { worker, server: wrap<JobServer>(worker), pending: new Map() };
    worker.addEventListener('error', (event) => {
      event.preventDefault();
      const why = event.message || 'its script could not be loaded';
      const reason = new WorkerError(`A computation failed to start: ${why}. Try again, or reload the page.`);
      end(started, reason);
      onDeath(reason);
    });
    return started;
  };

  return {
    stop: () => running && end(running, abortError()),
    run(name, input, { signal, onProgress, transfer = [], endsAfterMs } = {}) {
      return new Promise((resolve, reject) => {
        if (signal?.aborted) return reject(abortError());
        const here = (running ??= start());
        const id = ++jobs;
        const tell = onProgress && proxy((share: number) => void (here.pending.has(id) && onProgress(share)));
        const onAbort = () => {
          if (!here.pending.has(id)) return;
          if (endsAfterMs !== undefined) return end(here, abortError());
          here.pending.delete(id);
          void here.server.cancel(id);
          reject(abortError());
        };
        const timer =
          endsAfterMs !== undefined &&
          setTimeout(
            () => here.pending.has(id) && end(here, new RangeError(tookTooLong(endsAfterMs))),
            endsAfterMs,
          );
        const settle = () => {
          if (timer !== false) clearTimeout(timer);
          here.pending.delete(id);
          signal?.removeEventListener('abort', onAbort);
        };
        here.pending.set(id, (reason) => {
          settle();
          reject(reason instanceof Error ? reason : new Error(String(reason)));
        });
        signal?.addEventListener('abort', onAbort, { once: true });
        const buffers = [
          ...new Set(
            transfer.map((given) => (ArrayBuffer.isView(given) ? (given.buffer as ArrayBuffer) : given)),
          ),
        ];
        here.server
          .run(id, name, buffers.length > 0 ? handOver(input as object, buffers) : input, tell ?? null)
          .then(
            (result) => {
              settle();
              resolve(result as ResultOf<Jobs, typeof name>);
            },
            (error: unknown) => {
              settle();
              reject(error instanceof Error ? error : new Error(String(error)));
            },
          );
      });
    },
  };
}
