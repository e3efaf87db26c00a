import type { Project, Sweep } from '@pebble-hall/core/project';
import { useRef, useState } from 'react';
import { measureSweeps, memoryStamp, type AtSpot, type MeasuredSweep } from '../../parts/measuring';
import { exclusively } from '../../parts/running';
import { reasonSentence } from '../../parts/sentences';
import { tell, tellProblem } from '../../parts/tell';
import { processorChanged } from '../../parts/ChainPill';
import { isAbort, readProcessor, recallMemory, type Watched } from '../../rig';
import { repository, sentenceOf } from '../../store';
import { handsFree, prompt, type HandsFree } from './prompts';
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

interface Unstored {
  measured: MeasuredSweep;
  problem: string;
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

/** Taking sweeps: each is stored the moment it is taken, one that cannot be stored is kept here until it can. */
export function useWalk(project: Project) {
  const [now, setNow] = useState<WalkNow | null>(null);
  const [unstored, setUnstored] = useState<Unstored[]>([]);
  /** name of the memory with filters that stands in the way of measuring as found */
  const [filtered, setFiltered] = useState<string | null>(null);
  const latest = useRef(project);
  latest.current = project;

  /** what the microphone hears is shown to it while a sweep runs */
  const watcher = useRef<((watched: Watched) => void) | null>(null);
  /** ends a countdown at once */
  const skip = useRef<() => void>(() => undefined);

  const nameOf = ({ spotId, loudspeakerId }: Pick<Sweep, 'spotId' | 'loudspeakerId'>) => {
    const { spots, loudspeakers } = latest.current.place;
    return {
      spot: spots.find((s) => s.id === spotId)?.name ?? '',
      channel: loudspeakers.find((l) => l.id === loudspeakerId)?.name ?? '',
    };
  };

  const store = async (measured: MeasuredSweep): Promise<boolean> => {
    const { spot, channel } = nameOf(measured.sweep);
    const where = `${channel} at ${spot}`;
    try {
      await repository().change(
        project.id,
        `sweep of ${where}`,
        (p) => withSweep(p, measured.sweep),
        measured.arrays,
      );
      return true;
    } catch (error) {
      setUnstored((list) => [...list, { measured, problem: `${where}: ${sentenceOf(error)}` }]);
      return false;
    }
  };

  /** Counts down to the sweeps of a stop, so that one can put the stand up and leave, or hold still. */
  const countDown = async (at: WalkNow, { countdownS, prompts }: HandsFree, signal: AbortSignal) => {
    const from = performance.now();
    let skipped = false;
    skip.current = () => (skipped = true);
    let lastTold = Infinity;
    for (;;) {
      const leftS = Math.ceil(countdownS - (performance.now() - from) / 1000);
      if (leftS <= 0 || skipped) break;
      if (leftS !== lastTold) {
        setNow({ ...at, phase: 'counting', leftS });
        if (leftS <= 3) void prompt('tick', prompts, signal);
        lastTold = leftS;
      }
      await new Promise((resolve) => setTimeout(resolve, 50));
      if (signal.aborted) throw new DOMException('Cancelled.', 'AbortError');
    }
    skip.current = () => undefined;
  };

  /** Takes one play; what was disturbed is taken once more by itself, and the better of the two is kept. */
  const takeJob = async (
    { places, loudspeakerId }: WalkJob,
    at: WalkNow,
    signal: AbortSignal,
    how: HandsFree,
  ) => {
    const measure = (which: AtSpot[], again: boolean) =>
      measureSweeps(latest.current, which, loudspeakerId, 'as found', {
        signal,
        onProgress: (share) => setNow({ ...at, share, again }),
        onWatch: (watched) => watcher.current?.(watched),
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
      tell(
        `${spot}, ${channel}: ${first.sweep.verdict.reasons.map(toldOf).join('; ')}. Repeated by itself, and good now.`,
      );
    }
    return measured;
  };

  const take = async (stops: WalkStop[]) => {
    const how = handsFree();
    const total = stops.reduce((sum, s) => sum + s.jobs.length, 0);
    let done = 0;
    try {
      await exclusively('Measuring', async (signal) => {
        const memory = await memoryStamp();
        if (memory.hasFilters) {
          setFiltered(`${memory.letter}, ${memory.name}`);
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
          for (const job of jobs) {
            const at = { ...base, loudspeakerId: job.loudspeakerId, done };
            setNow(at);
            for (const measured of await takeJob(job, at, signal, how)) if (!(await store(measured))) return; // a full disk: stop, keep what is at hand
            done++;
          }
        }
        await prompt('done', how.prompts, signal);
      });
    } catch (error) {
      if (isAbort(error)) tell('Stopped. Every sweep that was finished is stored.');
      else tellProblem(sentenceOf(error));
    } finally {
      setNow(null);
    }
  };

  return {
    now,
    unstored,
    filtered,
    watcher,
    /** ends a countdown: everyone holds still already */
    beginNow: () => skip.current(),
    /** takes what a spot still lacks, and the spots beside it where more microphones walk along; all of it again when it lacks nothing */
    takeSpot: (spotId: string) => take([stopAt(latest.current, placesFrom(latest.current, spotId))]),
    takeAll: () => take(stopsLeft(latest.current)),
    takeOne: (spotId: string, loudspeakerId: string) =>
      take(stopsAgain(latest.current, [{ spotId, loudspeakerId }])),
    /** takes some again, in their order */
    takeThese: (sweeps: Pick<Sweep, 'spotId' | 'loudspeakerId'>[]) =>
      take(stopsAgain(latest.current, sweeps)),
    storeAgain: async () => {
      const list = unstored;
      setUnstored([]);
      for (const { measured } of list) await store(measured);
    },
    recallPlain: async () => {
      try {
        const state = await readProcessor();
        const plain = state.memories.find((m) => !('empty' in m) && !m.hasFilters);
        if (!plain) throw new Error('No memory without filters is left in the processor.');
        await recallMemory(plain.letter);
        processorChanged();
        setFiltered(null);
        tell(`Memory ${plain.letter} is active: it holds no filters.`);
      } catch (error) {
        tellProblem(sentenceOf(error));
      }
    },
  };
}

export type Walk = ReturnType<typeof useWalk>;
