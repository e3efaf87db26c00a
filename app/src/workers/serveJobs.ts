import { expose, releaseProxy, transfer } from 'comlink';

/** What a job is told while it runs in a worker. */
export interface JobContext {
  /** Tells how far it is, 0 to 1, in the midst of work that cannot wait. */
  tell(share: number): void;
  /**
   * Tells how far it is, 0 to 1, and lets the worker hear whether it is still wanted: to be awaited between parts of the
   * work.
   * @throws AbortError when it is not
   */
  progress(share: number): Promise<void>;
}

/** The functions of a worker by their names: what goes in is cloned, what comes out too, unless it is handed over. */
export type Handlers = Record<string, (input: never, context: JobContext) => unknown>;

/** How a job tells its progress; of a page it is a port, which is closed when the job has ended. */
export type Tell = ((share: number) => void) & { [releaseProxy]?: () => void };

/** What a worker offers to the page. */
export interface JobServer {
  /** @param tell null where nobody listens: a port for each short job would cost more than the job */
  run(id: number, name: string, input: unknown, tell: Tell | null): Promise<unknown>;
  cancel(id: number): void;
}

/** Hands a result over instead of copying it; `of` lists the arrays in it. */
export const handOver = <T>(value: T, of: (Float32Array | Float64Array | Uint8Array)[]): T =>
  transfer(value as object, [...new Set(of.map((array) => array.buffer as ArrayBuffer))]) as T;

/** A worker's side of jobs: one job at a time is not cut short by another that is cancelled. */
export function jobServer(handlers: Handlers): JobServer {
  const cancelled = new Set<number>();
  return {
    async run(id, name, input, tell) {
      const handler = handlers[name];
      if (!handler) throw new Error(`There is no job ${name}.`);
      const context: JobContext = {
        tell: (share) => tell?.(share),
        async progress(share) {
          tell?.(share);
          await hear();
          if (cancelled.has(id)) throw new DOMException('Cancelled.', 'AbortError');
        },
      };
      try {
        return await handler(input as never, context);
      } finally {
        cancelled.delete(id);
        tell?.[releaseProxy]?.();
      }
    },
    cancel: (id) => void cancelled.add(id),
  };
}

export const serveJobs = (handlers: Handlers): void => expose(jobServer(handlers));

/** Lets messages in: they come as tasks, which a promise alone never waits for. */
const hear = () =>
  new Promise<void>((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });
