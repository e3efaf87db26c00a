import { designGround, type DesignGround } from '@pebble-hall/core/jobs';
import { guardedPeakDb, type GuardedSignals } from '@pebble-hall/core/processing';
import { type Correction, type Project, loudspeakerName } from '@pebble-hall/core/project';
import { baseOutputs } from '../../services/baseOutputs';
import { outputsOf, type ExactFilters } from '../../services/exactFilters';
import { useDerived } from '../../services/useDerived';

/** What the headroom guard takes from all channels, and whose chain asks for it. */
export interface Guard {
  /** dB; 0 when it is off or nothing is needed */
  takesDb: number;
  /** what it is for */
  signals: GuardedSignals;
  /** their largest peak behind any chain, dB, with crossovers, levels and sections */
  mostDb: number;
  /** whose chain that is */
  of: string;
  /** what is asked of a subwoofer when all that send it bass carry the same at once, after what the guard takes; null where fewer than two do */
  atOnce: { feeds: number; of: string; db: number } | null;
}

interface Asked {
  ground: DesignGround;
  correction: Correction;
  filters: ExactFilters;
}

async function read({ ground, correction, filters }: Asked): Promise<Guard | null> {
  const { outputs } = await baseOutputs(ground);
  const built = await outputsOf(ground, correction, filters.exact, outputs);
  const nameOf = (id: string) => loudspeakerName(ground.place, id);
  const signals = correction.headroomGuard === 'off' ? 'full scale' : correction.headroomGuard;
  const peaks = [
    ...Object.entries(built.headroom).map(([id, h]) => ({ of: nameOf(id), db: guardedPeakDb(h, signals) })),
    ...(built.lowHeadroom
      ? [{ of: 'low-frequency channel', db: guardedPeakDb(built.lowHeadroom, signals) }]
      : []),
  ];
  if (peaks.length === 0) return null;
  const { of, db } = peaks.reduce((a, b) => (b.db > a.db ? b : a));
  const { allAtOnce, guardDb } = built;
  const atOnce = allAtOnce && {
    feeds: allAtOnce.feeds,
    of: nameOf(allAtOnce.id),
    db: allAtOnce.toneDb - guardDb,
  };
  return { takesDb: guardDb, signals, mostDb: db, of, atOnce };
}

/** What a correction asks of the processor's headroom once its filters are made; null before, and why it cannot be known. */
export function useGuard(
  project: Project,
  correction: Correction,
  filters: ExactFilters | null,
): Guard | string | null {
  const { value, problem } = useDerived(
    filters && { ground: designGround(project), correction, filters },
    read,
  );
  return problem ?? value;
}

/** What the guard does not guard against, since programme hardly ever asks for it; empty where there is nothing. */
export function atOnceWords(guard: Guard | string | null): string {
  const atOnce = guard && typeof guard !== 'string' ? guard.atOnce : null;
  return atOnce && atOnce.db > 0.05
    ? `; the same bass in all ${atOnce.feeds} inputs at once would drive ${atOnce.of} to +${atOnce.db.toFixed(1)} dB`
    : '';
}

/** The guard in words. */
export const guardWords = (chosen: Correction['headroomGuard'], guard: Guard | string | null): string =>
  typeof guard === 'string'
    ? `not known: ${guard}`
    : chosen === 'off'
      ? guard && guard.mostDb > 0.05
        ? `off: ${guard.of} may clip by ${guard.mostDb.toFixed(1)} dB`
        : 'off'
      : guard === null
        ? 'follows with the filters'
        : guard.takesDb === 0
          ? 'lowers nothing: nothing goes above full scale'
          : `lowers all channels by ${guard.takesDb.toFixed(1)} dB, for ${guard.of}`;
