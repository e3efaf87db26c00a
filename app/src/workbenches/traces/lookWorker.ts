import type { Project, Sweep } from '@pebble-hall/core/project';
import { traceKey, traceOf, type TracePart } from '../../parts/designs';
import type { LookApi } from '../../workers/look.worker';
import { startWorker, type RunningWorker } from '../../workers/startWorker';

let worker: RunningWorker<LookApi> | undefined;

/** The one worker of this page that looks at traces; it keeps those it was given. */
export const lookWorker = (): RunningWorker<LookApi> =>
  (worker ??= startWorker<LookApi>(
    () => new Worker(new URL('../../workers/look.worker.ts', import.meta.url), { type: 'module' }),
  ));

/** Hands the worker those sweeps that it does not know yet. */
export async function provide(project: Project, sweeps: Sweep[], part: TracePart): Promise<void> {
  const known = await lookWorker().call((api) => api.has(sweeps.map((s) => traceKey(s, part))));
  for (const [i, sweep] of sweeps.entries()) {
    if (known[i]) continue;
    const trace = await traceOf(sweep, project.calibrations, part);
    await lookWorker().call((api) => api.add({ ...trace, decayEnd: sweep.decayEnd }));
  }
}
