import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Piscina } from 'piscina';
import { BadRequest } from './answers';
import type { GroupToTrace } from './tracing.worker';
import { WORKERS } from './workersFolder';

/** So many groups may wait; a browser asks for as many at once as it has cores. */
const MOST_WAITING = 64;
/** A thread that nobody has needed for so long is let go of. */
const IDLE_MS = 60_000;

let pool: Piscina<GroupToTrace, Uint8Array> | undefined;

/**
 * Traces a group of rays in a thread of the server.
 * @param signal ends it, with its thread
 * @throws BadRequest 503 where there are no threads, or too much waits
 */
export async function traceOnServer(asked: GroupToTrace, signal: AbortSignal): Promise<Uint8Array> {
  const folder = process.env[WORKERS];
  if (!folder) throw new BadRequest(503, 'This server has no threads to trace with. Trace in the browser.');
  pool ??= new Piscina({
    filename: join(folder, 'tracing.worker.mjs'),
    minThreads: 0,
    maxThreads: availableParallelism(),
    maxQueue: MOST_WAITING,
    idleTimeout: IDLE_MS,
  });
  if (pool.queueSize >= MOST_WAITING)
    throw new BadRequest(503, 'The server traces for others. Wait a moment, or trace in the browser.');
  return pool.run(asked, { signal });
}
