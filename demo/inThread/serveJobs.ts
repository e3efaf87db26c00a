import type { Handlers } from '../../app/src/workers/serveJobs';

/** Jobs of each worker by its name, without a worker: in the thread that asks. */
export const served = new Map<string, Handlers>();
let name = '';

/** Names the worker whose module is read next. */
export const nextIs = (next: string): void => void (name = next);
export const serveJobs = (handlers: Handlers): void => void served.set(name, handlers);
/** Nothing is handed over within a thread. */
export const handOver = <T>(value: T): T => value;
