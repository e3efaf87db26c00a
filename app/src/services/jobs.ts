import { createStore } from 'zustand/vanilla';
import type { AlignJobs } from '../workers/align.worker';
import type { AnalysisJobs } from '../workers/analysis.worker';
import type { CoverageJobs } from '../workers/coverage.worker';
import type { DesignJobs } from '../workers/design.worker';
import { lane, type InputOf, type JobOptions, type Lane, type ResultOf } from '../workers/lane';
import type { DrawingJobs } from '../workers/drawings.worker';
import type { FileJobs } from '../workers/files.worker';
import type { LiveJobs } from '../workers/live.worker';
import type { ListenJobs } from '../workers/listen.worker';
import type { RayJobs } from '../workers/rays.worker';
import type { ShapeJobs } from '../workers/shapes.worker';
import type { ViewJobs } from '../workers/views.worker';

export type {
  LevelMapAsked,
  MeetingAsked,
  PressuresAsked,
  ShownModel,
  TraceSeen,
  TriedModel,
} from '../workers/coverage.worker';
export type {
  BothEars,
  EchoesSeen,
  LowsSeen,
  ReceiverSeen,
  RunAsked,
  RunReading,
} from '../workers/rays.worker';
export type { AskedModel } from '../workers/loudspeakerModels';

interface Lanes {
  align: AlignJobs;
  analysis: AnalysisJobs;
  coverage: CoverageJobs;
  design: DesignJobs;
  drawings: DrawingJobs;
  files: FileJobs;
  listen: ListenJobs;
  live: LiveJobs;
  rays: RayJobs;
  shapes: ShapeJobs;
  views: ViewJobs;
}

/** One more worker that traces rays: there is one for each core while a run is under way. */
export function rayLane(): Lane<RayJobs> {
  return lane(() => new Worker(new URL('../workers/rays.worker.ts', import.meta.url), { type: 'module' }));
}

const lanes: { [L in keyof Lanes]: Lane<Lanes[L]> } = {
  align: lane(() => new Worker(new URL('../workers/align.worker.ts', import.meta.url), { type: 'module' })),
  analysis: lane(
    () => new Worker(new URL('../workers/analysis.worker.ts', import.meta.url), { type: 'module' }),
  ),
  coverage: lane(
    () => new Worker(new URL('../workers/coverage.worker.ts', import.meta.url), { type: 'module' }),
  ),
  design: lane(() => new Worker(new URL('../workers/design.worker.ts', import.meta.url), { type: 'module' })),
  drawings: lane(
    () => new Worker(new URL('../workers/drawings.worker.ts', import.meta.url), { type: 'module' }),
  ),
  files: lane(() => new Worker(new URL('../workers/files.worker.ts', import.meta.url), { type: 'module' })),
  listen: lane(() => new Worker(new URL('../workers/listen.worker.ts', import.meta.url), { type: 'module' })),
  live: lane(() => new Worker(new URL('../workers/live.worker.ts', import.meta.url), { type: 'module' })),
  rays: rayLane(),
  shapes: lane(() => new Worker(new URL('../workers/shapes.worker.ts', import.meta.url), { type: 'module' })),
  views: lane(() => new Worker(new URL('../workers/views.worker.ts', import.meta.url), { type: 'module' })),
};

/** `lane.job`, as in `design.exact`. */
export type JobKind = { [L in keyof Lanes]: `${L}.${keyof Lanes[L] & string}` }[keyof Lanes];
type LaneOf<Kind> = Kind extends `${infer L extends keyof Lanes}.${string}` ? L : never;
type JobsOf<Kind> = Lanes[LaneOf<Kind>];
type NameOf<Kind> = Kind extends `${string}.${infer Name extends string}` ? Name & keyof JobsOf<Kind> : never;

export type InputOfJob<Kind extends JobKind> = InputOf<JobsOf<Kind>, NameOf<Kind>>;
export type ResultOfJob<Kind extends JobKind> = ResultOf<JobsOf<Kind>, NameOf<Kind>>;

/**
 * Runs a computation in its worker.
 * @param kind `lane.job`
 * @throws AbortError when cancelled, which leaves every other job alone
 */
export function runJob<Kind extends JobKind>(
  kind: Kind,
  input: InputOfJob<Kind>,
  options?: JobOptions,
): Promise<ResultOfJob<Kind>> {
  const [name, job] = kind.split('.') as [keyof Lanes, string];
  return (lanes[name] as Lane<never>).run(job as never, input as never, options) as never;
}

/** What a file of somebody else may take, ms. */
const FILE_MS = 60_000;

/** Runs what reads a file of somebody else: given up after a minute, ended at once when it is cancelled. */
export const readInWorker = <Kind extends JobKind>(
  kind: Kind,
  input: InputOfJob<Kind>,
  signal?: AbortSignal,
): Promise<ResultOfJob<Kind>> => runJob(kind, input, { signal, endsAfterMs: FILE_MS });

/** Something that takes long, as the header tells of it. */
export interface LongJob {
  id: number;
  /** what it does, as a sentence's beginning: "Designing filters" */
  what: string;
  share: number;
  cancel: () => void;
}

/** Long jobs under way in this tab, whichever workbench began them. */
export const longJobs = createStore<{ underWay: LongJob[] }>(() => ({ underWay: [] }));
let count = 0;

/**
 * Runs something long: told in the header of every workbench with its progress, and
 * cancelled there or by the signal.
 */
export async function runLong<T>(
  what: string,
  run: (job: { signal: AbortSignal; onProgress: (share: number) => void }) => Promise<T>,
  signal?: AbortSignal,
): Promise<T> {
  const controller = new AbortController();
  const cancel = () => controller.abort();
  signal?.addEventListener('abort', cancel, { once: true });
  const id = ++count;
  const update = (change: (underWay: LongJob[]) => LongJob[]) =>
    longJobs.setState(({ underWay }) => ({ underWay: change(underWay) }));
  update((underWay) => [...underWay, { id, what, share: 0, cancel }]);
  try {
    return await run({
      signal: controller.signal,
      onProgress: (share) =>
        update((underWay) => underWay.map((job) => (job.id === id ? { ...job, share } : job))),
    });
  } finally {
    signal?.removeEventListener('abort', cancel);
    update((underWay) => underWay.filter((job) => job.id !== id));
  }
}
