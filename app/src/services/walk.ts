import type { NoiseTrait } from '@pebble-hall/core/commissioning';
import { type Project, type Sweep, loudspeakerById } from '@pebble-hall/core/project';
import { createStore } from 'zustand/vanilla';
import { abortError, isAbort } from '../ports/abort';
import { projectNow, sentenceOf } from '../store';
import { reasonSentence } from '../words/sweepReasons';
import { listenAt, measureSweeps, memoryStamp, type AtSpot, type MeasuredSweep } from './measuring';
import { notify, notifyProblem } from './notify';
import { processorChanged } from './processorChanged';
import { handsFree, prompt, type HandsFree } from './prompts';
import { exclusively } from './running';
import type { Watched } from './recordSweep';
import { theProcessor } from './theProcessor';
import { storeMeasured } from './unstored';
import { placesFrom, stopAt, stopsAgain, stopsLeft, type WalkJob, type WalkStop } from './walkJobs';

export interface WalkNow {
  /** counting down to hold still, or sweeping */
  phase: 'counting' | 'sweeping';
  spotIds: string[];
  loudspeakerId: string;
  /** sweeps of this call that are done, and in all */
  done: number;
  total: number;
  share: number;
  /** seconds left of a countdown */
  leftS: number;
  /** the sweep was disturbed and is repeated */
  again: boolean;
}

/** Replaces the sweep of one spot and loudspeaker, and nothing else. */
const withSweep = (project: Project, sweep: Sweep): Project => ({
  ...project,
  sweeps: [
    ...project.sweeps.filter(
      (s) =>
        !(
          s.stage === sweep.stage &&
          s.roundId === sweep.roundId &&
          s.spotId === sweep.spotId &&
          s.loudspeakerId === sweep.loudspeakerId
        ),
    ),
    sweep,
  ],
});

const RANK = { good: 0, doubtful: 1, failed: 2 } as const;

/** What failed is taken once more before anyone is asked, and so is what was only disturbed; a soft one would be as soft again. */
const isWorthRepeating = ({ verdict }: Sweep): boolean =>
  verdict.state === 'failed' ||
  (verdict.state === 'doubtful' && verdict.reasons.every((r) => r.kind === 'disturbed'));

/** What was wrong, without the advice to repeat it. */
const toldOf = (reason: Parameters<typeof reasonSentence>[0]) =>
  reasonSentence(reason).replace(/: [^:]*repeat it$/, '');

export interface WalkState {
  now: WalkNow | null;
  /** name of the memory with filters that stands in the way of measuring as found */
  filtered: string | null;
}

/** The walk of this tab: it goes on while one looks at another workbench. Each sweep is stored the moment it is taken. */
export const walk = createStore<WalkState>(() => ({ now: null, filtered: null }));
const setNow = (now: WalkNow | null) => walk.setState({ now });

const watchers = new Set<(watched: Watched) => void>();
/** Tells what the microphone hears while a sweep runs, until the returned function is called. */
export function watchWalk(watcher: (watched: Watched) => void): () => void {
  watchers.add(watcher);
  return () => watchers.delete(watcher);
}

/** ends a countdown at once */
let skip = (): void => undefined;

function nameOf({ spotId, loudspeakerId }: Pick<Sweep, 'spotId' | 'loudspeakerId'>) {
  const { spots, loudspeakers } = projectNow().place;
  return {
    spot: spots.find((s) => s.id === spotId)?.name ?? '',
    channel: loudspeakerById({ loudspeakers }, loudspeakerId)?.name ?? '',
  };
}

async function store(measured: MeasuredSweep): Promise<boolean> {
  const { spot, channel } = nameOf(measured.sweep);
  const where = `${channel} at ${spot}`;
  return storeMeasured(`sweep of ${where}`, (p) => withSweep(p, measured.sweep), { arrays: measured.arrays });
}

/** Counts down to the sweeps of a stop, so that one can put the stand up and leave, or hold still. */
async function countDown(
  at: WalkNow,
  { countdownS, prompts }: HandsFree,
  signal: AbortSignal,
): Promise<void> {
  const from = performance.now();
  let isSkipped = false;
  skip = () => (isSkipped = true);
  let lastTold = Infinity;
  for (;;) {
    const leftS = Math.ceil(countdownS - (performance.now() - from) / 1000);
    if (leftS <= 0 || isSkipped) break;
    if (leftS !== lastTold) {
      setNow({ ...at, phase: 'counting', leftS });
      if (leftS <= 3) void prompt('tick', prompts, signal);
      lastTold = leftS;
    }
    await new Promise((resolve) => setTimeout(resolve, 50));
    if (signal.aborted) throw abortError();
  }
  skip = () => undefined;
}

/** Takes one play; what was disturbed is taken once more by itself, and the better of the two is kept. */
async function takeJob(
  { places, loudspeakerId }: WalkJob,
  at: WalkNow,
  signal: AbortSignal,
  how: HandsFree,
  noise: NoiseTrait[],
): Promise<MeasuredSweep[]> {
  const measure = (which: AtSpot[], again: boolean) =>
    measureSweeps(projectNow(), which, loudspeakerId, 'as found', {
      signal,
      noise,
      onProgress: (share) => setNow({ ...at, share, again }),
      onWatch: (watched) => watchers.forEach((watcher) => watcher(watched)),
    });
  const measured = await measure(places, false);
  const troubled = places.filter((_, i) => isWorthRepeating(measured[i]!.sweep));
  if (troubled.length === 0) return measured;
  setNow({ ...at, share: 0, again: true });
  void prompt('again', how.prompts, signal);
  const second = await measure(troubled, true);
  for (const [k, place] of troubled.entries()) {
    const i = places.indexOf(place);
    const [first, next] = [measured[i]!, second[k]!];
    if (RANK[next.sweep.verdict.state] <= RANK[first.sweep.verdict.state]) measured[i] = next;
    if (measured[i]!.sweep.verdict.state !== 'good') continue;
    const { spot, channel } = nameOf(next.sweep);
    notify(
      `${spot}, ${channel}: ${first.sweep.verdict.reasons.map(toldOf).join('; ')}. Repeated by itself, and good now.`,
    );
  }
  return measured;
}

async function take(stops: WalkStop[]): Promise<void> {
  const how = handsFree();
  const total = stops.reduce((sum, s) => sum + s.jobs.length, 0);
  let done = 0;
  try {
    await exclusively('Measuring', async (signal) => {
      const memory = await memoryStamp();
      if (memory.hasFilters) {
        walk.setState({ filtered: `${memory.letter}, ${memory.name}` });
        return;
      }
      for (const [i, { places, jobs }] of stops.entries()) {
        const spotIds = places.map((p) => p.spotId);
        const base = { phase: 'sweeping' as const, spotIds, total, share: 0, leftS: 0, again: false };
        if (how.countdownS > 0) {
          if (i > 0) void prompt('move on', how.prompts, signal);
          await countDown({ ...base, loudspeakerId: jobs[0]!.loudspeakerId, done }, how, signal);
        }
        await prompt('hold still', how.prompts, signal);
        const noise = await listenAt(places, signal);
        for (const job of jobs) {
          const at = { ...base, loudspeakerId: job.loudspeakerId, done };
          setNow(at);
          // a full disk: stop, keep what is at hand
          for (const measured of await takeJob(job, at, signal, how, noise))
            if (!(await store(measured))) return;
          done++;
        }
      }
      await prompt('done', how.prompts, signal);
    });
  } catch (error) {
    if (isAbort(error)) notify('Stopped. Every sweep that was finished is stored.');
    else notifyProblem(sentenceOf(error));
  } finally {
    setNow(null);
  }
}

/** Ends a countdown: everyone holds still already. */
export const beginNow = (): void => skip();

/** Takes what a spot still lacks, and the spots beside it where more microphones walk along; all of it again when it lacks nothing. */
export const takeSpot = (spotId: string): Promise<void> =>
  take([stopAt(projectNow(), placesFrom(projectNow(), spotId))]);

export const takeAll = (): Promise<void> => take(stopsLeft(projectNow()));

export const takeOne = (spotId: string, loudspeakerId: string): Promise<void> =>
  take(stopsAgain(projectNow(), [{ spotId, loudspeakerId }]));

/** Takes some again, in their order. */
export const takeThese = (sweeps: Pick<Sweep, 'spotId' | 'loudspeakerId'>[]): Promise<void> =>
  take(stopsAgain(projectNow(), sweeps));

/** Makes a memory without filters the active one, so that the room can be measured as found. */
export async function recallPlain(): Promise<void> {
  try {
    const state = await theProcessor().state();
    const plain = state.memories.find((m) => !('empty' in m) && !m.hasFilters);
    if (!plain) throw new Error('No memory without filters is left in the processor.');
    await theProcessor().recall(plain.letter);
    processorChanged();
    walk.setState({ filtered: null });
    notify(`Memory ${plain.letter} is active: it holds no filters.`);
  } catch (error) {
    notifyProblem(sentenceOf(error));
  }
}
