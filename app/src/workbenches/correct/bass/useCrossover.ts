import type { CrossoverReading, CrossoverSetting } from '@pebble-hall/core/alignment';
import {
  designGround,
  traceRef,
  type CrossoverRequest,
  type CrossoverSide,
  type DesignGround,
} from '@pebble-hall/core/jobs';
import { crossoverBiquads, sectionBiquad, signalPath, type CrossoverFilter } from '@pebble-hall/core/path';
import {
  fittedOf,
  usableSpots,
  type Correction,
  type Crossovers,
  type Project,
  loudspeakerById,
} from '@pebble-hall/core/project';
import { baseOutputs } from '../../../services/baseOutputs';
import type { Job } from '../../../services/derivation';
import type { ExactFilters } from '../../../services/exactFilters';
import { runJob } from '../../../services/jobs';
import { theProcessor } from '../../../services/theProcessor';
import { useDerived } from '../../../services/useDerived';

/** What a crossover is asked for with, and the filters as they are being edited, else as the processor has them. */
export interface CrossoverGround {
  request: CrossoverRequest;
  setting: CrossoverSetting;
  /** the subwoofers' own low-pass */
  subsOwn: CrossoverFilter | null;
  /** whether bass of the channel goes to the subwoofers */
  sent: boolean;
}

interface Asked {
  ground: DesignGround;
  correction: Correction;
  filters: ExactFilters;
  mainId: string;
}

/** A channel and all subwoofers, with their filters, levels and delays as they are being edited. */
export async function crossoverGround({
  ground,
  correction,
  filters,
  mainId,
}: Asked): Promise<CrossoverGround> {
  const { rate } = theProcessor().profile;
  const subs = fittedOf(ground).filter((l) => l.role === 'subwoofer');
  const main = loudspeakerById(ground.place, mainId)!;
  const own = [main, ...subs].map((l) => usableSpots(ground, l.id).averaged);
  const spots = ground.place.spots.filter((spot) => own.every((o) => o.some((s) => s.spotId === spot.id)));
  if (spots.length === 0)
    throw new Error('there is no spot yet that has a sweep of the channel and of every subwoofer.');
  const { outputs } = await baseOutputs(ground);
  const outputOf = (id: string) => loudspeakerById(ground.place, id)!.output;
  const before = outputs[main.output - 1]!;
  const highBefore = before.size === 'small' ? before.highPass : null;
  const chosen = correction.crossovers[mainId];
  const lowBefore = (id: string) => outputs[outputOf(id) - 1]!.lowPass;
  const lowOf = (id: string) => {
    const set = correction.crossovers[id];
    return set ? set.lowPass : lowBefore(id);
  };
  /** What stands ahead of a loudspeaker, its crossover apart: that one is what is looked for. */
  const side = (
    i: number,
    id: string,
    pass: 'highpass' | 'lowpass',
    from: CrossoverFilter | null,
    to: CrossoverFilter | null,
  ): CrossoverSide => {
    const [filter, alignment, sub] = [filters.exact.get(id), correction.alignment[id], correction.subs[id]];
    const sections = [...(sub?.sections ?? []), ...(filter?.sections ?? [])];
    return {
      traces: spots.map((spot) =>
        traceRef(
          own[i]!.find((s) => s.spotId === spot.id)!,
          ground.calibrations,
        ),
      ),
      path: signalPath(rate, {
        fir: filter?.fir ?? null,
        filters: [...sections.map((s) => sectionBiquad(s, rate)), ...crossoverBiquads(pass, to, rate)],
        gainDb: (alignment?.trimDb ?? 0) + (sub?.gainDb ?? 0),
        delayS: (alignment?.delayMs ?? 0) / 1000 + (sub?.delayS ?? 0),
        inverted: (alignment?.inverted ?? false) !== (sub?.inverted ?? false),
      }),
      measuredThrough: signalPath(rate, { filters: crossoverBiquads(pass, from, rate) }),
    };
  };
  return {
    subsOwn: lowOf(subs[0]!.id),
    sent: chosen ? chosen.highPass !== null || chosen.lowPass !== null : before.bassFeed !== null,
    setting: {
      highPass: chosen ? chosen.highPass : highBefore,
      lowPass: chosen ? chosen.lowPass : (before.bassFeed?.lowPass ?? null),
      subDelayS: 0,
      subInverted: false,
    },
    request: {
      main: side(0, mainId, 'highpass', highBefore, null),
      subs: subs.map((l, i) => side(i + 1, l.id, 'lowpass', lowBefore(l.id), lowOf(l.id))),
    },
  };
}

export interface CrossoverState extends CrossoverReading, Omit<CrossoverGround, 'request'> {}

async function read(asked: Asked, { signal }: Job): Promise<CrossoverState> {
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
