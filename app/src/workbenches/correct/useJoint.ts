import type { Correction, Crossovers, Project } from '@pebble-hall/core/project';
import type { CrossoverFilter, JointSetting, JointSide } from '@pebble-hall/core/alignment';
import { useEffect, useState } from 'react';
import { baseOutputs } from '../../parts/baseOutputs';
import { designWorker, provideTraces, sweepsUsed, traceKey } from '../../parts/designs';
import { PROCESSOR, type ExactFilters } from '../../parts/exactFilters';
import { designKey, fittedOf, usableSpots } from '../../parts/progress';
import { sentenceOf } from '../../store';
import type { JointRead, JointRequest } from '../../workers/design.worker';

/** What a joint is asked for with, and the crossovers as they are in hand, else as the processor has them. */
export interface JointGround {
  request: JointRequest;
  setting: JointSetting;
  /** the subwoofers' own low-pass */
  subsOwn: CrossoverFilter | null;
  /** whether bass of the channel goes to the subwoofers */
  sent: boolean;
}

/** A channel and all subwoofers, with their filters, levels and delays as they are in hand. */
export async function jointGround(
  project: Project,
  correction: Correction,
  filters: ExactFilters,
  mainId: string,
): Promise<JointGround> {
  await provideTraces(sweepsUsed(project), project.calibrations);
  const subs = fittedOf(project).filter((l) => l.role === 'subwoofer');
  const main = project.place.loudspeakers.find((l) => l.id === mainId)!;
  const own = [main, ...subs].map((l) => usableSpots(project, l.id).averaged);
  const spots = project.place.spots.filter((spot) => own.every((o) => o.some((s) => s.spotId === spot.id)));
  if (spots.length === 0)
    throw new Error('there is no spot yet that has a sweep of the channel and of every subwoofer.');
  const keysOf = (i: number) => spots.map((spot) => traceKey(own[i]!.find((s) => s.spotId === spot.id)!));
  const { outputs } = await baseOutputs(project);
  const before = outputs[main.output - 1]!;
  const highBefore = before.size === 'small' ? before.highPass : null;
  const chosen = correction.crossovers[mainId];
  const lowBefore = (id: string) =>
    outputs[project.place.loudspeakers.find((l) => l.id === id)!.output - 1]!.lowPass;
  const lowOf = (id: string) => {
    const set = correction.crossovers[id];
    return set ? set.lowPass : lowBefore(id);
  };
  const side = (id: string, from: CrossoverFilter | null, to: CrossoverFilter | null): JointSide => {
    const [filter, alignment, sub] = [filters.exact.get(id), correction.alignment[id], correction.subs[id]];
    return {
      fir: filter?.fir ?? null,
      sections: [...(sub?.sections ?? []), ...(filter?.sections ?? [])],
      gainDb: (alignment?.trimDb ?? 0) + (sub?.gainDb ?? 0),
      delayS: (alignment?.delayMs ?? 0) / 1000 + (sub?.delayS ?? 0),
      inverted: (alignment?.inverted ?? false) !== (sub?.inverted ?? false),
      before: from,
      after: to,
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
      rate: PROCESSOR.rate,
      main: { keys: keysOf(0), side: side(mainId, highBefore, null) },
      subs: subs.map((l, i) => ({ keys: keysOf(i + 1), side: side(l.id, lowBefore(l.id), lowOf(l.id)) })),
    },
  };
}

export interface JointReading extends JointRead, Omit<JointGround, 'request'> {}

/** The joint of a channel with the subwoofers as it is in hand: a complex sum over all spots. */
export function useJoint(
  project: Project,
  correction: Correction,
  filters: ExactFilters | null,
  mainId: string | null,
): { reading: JointReading | null; problem: string | null } {
  const [state, setState] = useState<{
    key: string;
    reading: JointReading | null;
    problem: string | null;
  } | null>(null);
  // levels, delays and crossovers do not change the filters, but the joint
  const key = filters && mainId ? `${filters.key} ${mainId} ${designKey(project, correction)}` : null;
  useEffect(() => {
    if (!key || !filters || !mainId) return;
    let current = true;
    const read = async () => {
      const { request, ...ground } = await jointGround(project, correction, filters, mainId);
      const joint = await designWorker().call((api) =>
        api.joint({ request, setting: ground.setting }, correction.lowChannel),
      );
      if (current) setState({ key, reading: { ...joint, ...ground }, problem: null });
    };
    read().catch((error: unknown) => current && setState({ key, reading: null, problem: sentenceOf(error) }));
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key says all that it rests on
  }, [key]);
  return state?.key === key ? state : { reading: null, problem: null };
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
