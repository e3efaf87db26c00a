import type { Correction, Crossovers, Project } from '@pebble-hall/core/project';
import type { CrossoverFilter, Joint, JointSetting } from '@pebble-hall/core/together';
import { useEffect, useState } from 'react';
import { baseOutputs } from '../../parts/baseOutputs';
import { designWorker, provideTraces, sweepsUsed, traceKey } from '../../parts/designs';
import { PROCESSOR, type ExactFilters } from '../../parts/exactFilters';
import { designKey, fittedOf, usableSpots } from '../../parts/progress';
import { sentenceOf } from '../../store';
import type { JointCurves, JointRequest } from '../../workers/design.worker';

/** What a joint is asked for with, and what the crossovers are before it: in hand, or the processor's own. */
export interface JointGround {
  request: JointRequest;
  setting: JointSetting;
  base: Crossovers;
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
  const base: Crossovers = {
    highPass: outputs[main.output - 1]!.size === 'small' ? outputs[main.output - 1]!.highPass : null,
    lowPass: outputs[subs[0]!.output - 1]!.lowPass,
  };
  const first = subs[0]!.id;
  const filterOf = (id: string) => filters.exact.get(id);
  return {
    base,
    setting: {
      highPass: correction.crossovers[mainId] ? correction.crossovers[mainId]!.highPass : base.highPass,
      lowPass: correction.crossovers[first] ? correction.crossovers[first]!.lowPass : base.lowPass,
      subDelayS: 0,
      subInverted: false,
    },
    request: {
      rate: PROCESSOR.rate,
      main: keysOf(0),
      mainSide: {
        fir: filterOf(mainId)?.fir ?? null,
        sections: filterOf(mainId)?.sections ?? [],
        gainDb: correction.alignment[mainId]?.trimDb ?? 0,
        delayS: (correction.alignment[mainId]?.delayMs ?? 0) / 1000,
        inverted: correction.alignment[mainId]?.inverted ?? false,
        before: base.highPass,
      },
      subs: spots.map((_, spot) =>
        subs.map((l, i) => ({
          key: keysOf(i + 1)[spot]!,
          setting: {
            gainDb: (correction.subs[l.id]?.gainDb ?? 0) + (correction.alignment[l.id]?.trimDb ?? 0),
            delayS: (correction.subs[l.id]?.delayS ?? 0) + (correction.alignment[l.id]?.delayMs ?? 0) / 1000,
            inverted:
              (correction.subs[l.id]?.inverted ?? false) !== (correction.alignment[l.id]?.inverted ?? false),
            // filters that are not shared act on their own subwoofer; shared ones too, so they are put here alike
            sections: [...(correction.subs[l.id]?.sections ?? []), ...(filterOf(l.id)?.sections ?? [])].slice(
              0,
              24,
            ),
          },
        })),
      ),
      subSide: {
        fir: filterOf(first)?.fir ?? null,
        sections: [],
        gainDb: 0,
        delayS: 0,
        inverted: false,
        before: base.lowPass,
      },
    },
  };
}

export interface JointReading extends Joint, JointCurves {
  setting: JointSetting;
}

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
      const { request, setting } = await jointGround(project, correction, filters, mainId);
      const joint = await designWorker().call((api) => api.joint(request, setting));
      if (current) setState({ key, reading: { ...joint, setting }, problem: null });
    };
    read().catch((error: unknown) => current && setState({ key, reading: null, problem: sentenceOf(error) }));
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key says all that it rests on
  }, [key]);
  return state?.key === key ? state : { reading: null, problem: null };
}

/** Crossovers that are offered to the search: third octaves from 50 to 125 Hz in each kind and slope given. */
export function offeredCrossovers(kinds: { kind: CrossoverFilter['kind']; order: number }[]): Crossovers[] {
  return kinds.flatMap(({ kind, order }) =>
    [50, 63, 80, 100, 125].map((frequency) => ({
      highPass: { kind, order, frequency },
      lowPass: { kind, order, frequency },
    })),
  );
}
