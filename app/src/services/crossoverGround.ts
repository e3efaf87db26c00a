import type { CrossoverSetting } from '@pebble-hall/core/alignment';
import {
  traceRef,
  type CrossoverRequest,
  type CrossoverSide,
  type DesignGround,
} from '@pebble-hall/core/jobs';
import { crossoverBiquads, sectionBiquad, signalPath, type CrossoverFilter } from '@pebble-hall/core/path';
import { fittedOf, loudspeakerById, usableSpots, type Correction } from '@pebble-hall/core/project';
import { baseOutputs } from './baseOutputs';
import type { ExactFilters } from './exactFilters';
import { theProcessor } from './theProcessor';

/** What a crossover is asked for with, and the filters as they are being edited, else as the processor has them. */
export interface CrossoverGround {
  request: CrossoverRequest;
  setting: CrossoverSetting;
  /** the subwoofers' own low-pass */
  subsOwn: CrossoverFilter | null;
  /** whether bass of the channel goes to the subwoofers */
  sent: boolean;
}

/** What a crossover is read from: of a correction whose filters are made, one channel. */
export interface CrossoverAsked {
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
}: CrossoverAsked): Promise<CrossoverGround> {
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
      weights: spots.map((spot) => spot.weight),
      main: side(0, mainId, 'highpass', highBefore, null),
      subs: subs.map((l, i) => side(i + 1, l.id, 'lowpass', lowBefore(l.id), lowOf(l.id))),
    },
  };
}
