import type { CrossoverReading } from '@pebble-hall/core/alignment';
import { designGround } from '@pebble-hall/core/jobs';
import type { CrossoverFilter } from '@pebble-hall/core/path';
import type { Correction, Crossovers, Project } from '@pebble-hall/core/project';
import {
  crossoverGround,
  type CrossoverAsked,
  type CrossoverGround,
} from '../../../services/crossoverGround';
import type { Job } from '../../../services/derivation';
import type { ExactFilters } from '../../../services/exactFilters';
import { runJob } from '../../../services/jobs';
import { useDerived } from '../../../services/useDerived';

export interface CrossoverState extends CrossoverReading, Omit<CrossoverGround, 'request'> {}

async function read(asked: CrossoverAsked, { signal }: Job): Promise<CrossoverState> {
  const { request, ...ground } = await crossoverGround(asked);
  const low = asked.correction.lowChannel;
  const reading = await runJob('design.crossover', { request, setting: ground.setting, low }, { signal });
  return { ...reading, ...ground };
}

/** The crossover of a channel with the subwoofers as it is being edited: a complex sum over all spots. */
export function useCrossover(
  project: Project,
  correction: Correction,
  filters: ExactFilters | null,
  mainId: string | null,
): { reading: CrossoverState | null; problem: string | null } {
  const { value, problem } = useDerived(
    filters && mainId ? { ground: designGround(project), correction, filters, mainId } : null,
    read,
  );
  return { reading: value, problem };
}

/** A crossover lies so far above where the channel itself ends: half an octave. */
const ABOVE_CORNER = Math.SQRT2;

/**
 * Crossovers that are offered to the search: third octaves from 50 to 160 Hz in each kind and slope given, those left out
 * that ask a channel for what it does not have.
 * @param corners where the channels roll off by themselves, Hz
 */
export function offeredCrossovers(
  kinds: { kind: CrossoverFilter['kind']; order: number }[],
  corners: number[],
): Crossovers[] {
  const lowest = ABOVE_CORNER * Math.max(0, ...corners);
  const all = [50, 63, 80, 100, 125, 160];
  const frequencies = all.filter((f) => f >= lowest);
  return kinds.flatMap(({ kind, order }) =>
    (frequencies.length > 0 ? frequencies : all.slice(-1)).map((frequency) => ({
      highPass: { kind, order, frequency },
      lowPass: { kind, order, frequency },
    })),
  );
}
