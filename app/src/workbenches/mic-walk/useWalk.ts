import type { Project, ProjectArray, Sweep } from '@pebble-hall/core/project';
import { useRef, useState } from 'react';
import { measureSweep, memoryStamp } from '../../parts/measuring';
import { fittedOf, isSpotTaken, sweepOf } from '../../parts/progress';
import { exclusively } from '../../parts/running';
import { reasonSentence } from '../../parts/sentences';
import { tell, tellProblem } from '../../parts/tell';
import { processorChanged } from '../../parts/ChainPill';
import { isAbort, readProcessor, recallMemory } from '../../rig';
import { repository, sentenceOf } from '../../store';

export interface WalkNow {
  spotId: string;
  loudspeakerId: string;
  /** sweeps of this call that are done, and in all */
  done: number;
  total: number;
  share: number;
  /** the sweep was disturbed and is repeated */
  again?: boolean;
}

interface Unstored {
  sweep: Sweep;
  array: ProjectArray;
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

/** A sweep that was disturbed or lost sound may be good the next time; a silent, clipped or soft one would be the same again. */
const isWorthRepeating = ({ verdict }: Sweep): boolean =>
  verdict.state !== 'good' && verdict.reasons.every((r) => r.kind === 'disturbed' || r.kind === 'dropouts');

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

  const store = async (sweep: Sweep, array: ProjectArray): Promise<boolean> => {
    const { spots, loudspeakers } = latest.current.place;
    const where = `${loudspeakers.find((l) => l.id === sweep.loudspeakerId)?.name} at ${spots.find((s) => s.id === sweep.spotId)?.name}`;
    try {
      await repository().change(project.id, `sweep of ${where}`, (p) => withSweep(p, sweep), [array]);
      return true;
    } catch (error) {
      setUnstored((list) => [...list, { sweep, array, problem: `${where}: ${sentenceOf(error)}` }]);
      return false;
    }
  };

  const take = async (jobs: { spotId: string; loudspeakerId: string }[]) => {
    try {
      await exclusively('Measuring', async (signal) => {
        const memory = await memoryStamp();
        if (memory.hasFilters) {
          setFiltered(`${memory.letter}, ${memory.name}`);
          return;
        }
        for (const [i, { spotId, loudspeakerId }] of jobs.entries()) {
          const at = { spotId, loudspeakerId, done: i, total: jobs.length };
          setNow({ ...at, share: 0 });
          const measure = () =>
            measureSweep(latest.current, spotId, loudspeakerId, 'as found', {
              signal,
              onProgress: (share) => setNow({ ...at, share }),
            });
          let { sweep, array } = await measure();
          if (isWorthRepeating(sweep)) {
            // once by itself; the better of the two is kept, and what is still wrong is asked about
            const first = sweep;
            setNow({ ...at, share: 0, again: true });
            const second = await measure();
            if (RANK[second.sweep.verdict.state] <= RANK[first.verdict.state]) ({ sweep, array } = second);
            if (sweep.verdict.state === 'good') {
              const { spots, loudspeakers } = latest.current.place;
              const where = `${spots.find((s) => s.id === spotId)!.name}, ${loudspeakers.find((l) => l.id === loudspeakerId)!.name}`;
              tell(
                `${where}: ${first.verdict.reasons.map(toldOf).join('; ')}. Repeated by itself, and good now.`,
              );
            }
          }
          if (!(await store(sweep, array))) return; // a full disk: stop, keep what is at hand
        }
      });
    } catch (error) {
      if (isAbort(error)) tell('Stopped. Every sweep that was finished is stored.');
      else tellProblem(sentenceOf(error));
    } finally {
      setNow(null);
    }
  };

  const jobsOf = (spotId: string) =>
    fittedOf(latest.current)
      .filter((l) => {
        const sweep = sweepOf(latest.current, spotId, l.id);
        return !sweep || sweep.verdict.state !== 'good';
      })
      .map((l) => ({ spotId, loudspeakerId: l.id }));

  return {
    now,
    unstored,
    filtered,
    /** takes what a spot still lacks; all of it again when it lacks nothing */
    takeSpot: (spotId: string) => {
      const missing = jobsOf(spotId);
      return take(
        missing.length > 0 ? missing : fittedOf(latest.current).map((l) => ({ spotId, loudspeakerId: l.id })),
      );
    },
    takeAll: () =>
      take(
        latest.current.place.spots
          .filter((s) => !isSpotTaken(latest.current, s))
          .flatMap((s) => jobsOf(s.id)),
      ),
    takeOne: (spotId: string, loudspeakerId: string) => take([{ spotId, loudspeakerId }]),
    /** takes some again, in their order */
    takeThese: (sweeps: Pick<Sweep, 'spotId' | 'loudspeakerId'>[]) =>
      take(sweeps.map(({ spotId, loudspeakerId }) => ({ spotId, loudspeakerId }))),
    storeAgain: async () => {
      const list = unstored;
      setUnstored([]);
      for (const { sweep, array } of list) await store(sweep, array);
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
