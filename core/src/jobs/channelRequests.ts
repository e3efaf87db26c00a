import {
  fittedOf,
  targetOf,
  usableSpots,
  type Correction,
  type Project,
  type Sweep,
} from '../project/index.js';
import type { ChannelRequest } from './designDesk.js';
import { traceRef } from './sweepTraces.js';
import type { TraceSource, TraceSum } from './traceSource.js';

/** What designs read of a project: nothing else of it changes them. */
export type DesignGround = Pick<
  Project,
  'place' | 'sweeps' | 'roundId' | 'calibrations' | 'families' | 'processor'
>;

/** The part of a project that designs read; alike as long as nothing in it has changed. */
export const designGround = ({
  place,
  sweeps,
  roundId,
  calibrations,
  families,
  processor,
}: Project): DesignGround => ({
  place,
  sweeps,
  roundId,
  calibrations,
  families,
  processor,
});

/** Subwoofers that play together in a correction, in the order of the place. */
export const togetherIds = (project: Pick<Project, 'place'>, correction: Correction): string[] =>
  fittedOf(project)
    .map((l) => l.id)
    .filter((id) => correction.subs[id] !== undefined);

/** What the subwoofers make together at each spot that has all of them. */
function sumsOf(project: DesignGround, correction: Correction) {
  const ids = togetherIds(project, correction);
  const own = ids.map((id) => usableSpots(project, id));
  const collect = (which: 'averaged' | 'leftOut') =>
    project.place.spots.flatMap((spot) => {
      const sweeps = own.map((o) => o[which].find((s) => s.spotId === spot.id));
      if (sweeps.length < 2 || sweeps.some((s) => s === undefined)) return [];
      const parts = sweeps.map((sweep, i) => ({
        trace: traceRef(sweep!, project.calibrations),
        setting: correction.subs[ids[i]!]!,
      }));
      return [{ spotId: spot.id, sum: { parts } satisfies TraceSum }];
    });
  return { averaged: collect('averaged'), leftOut: collect('leftOut') };
}

/**
 * What the design of every channel that can be corrected is based on.
 * @param only ids of the channels that are asked about; all of them when absent
 */
export function channelRequests(
  project: DesignGround,
  correction: Correction,
  only?: readonly string[],
): ChannelRequest[] {
  const together = togetherIds(project, correction);
  const sums = sumsOf(project, correction);
  const weightOf = (spotId: string) => project.place.spots.find((spot) => spot.id === spotId)!.weight;
  const { strength, strengthPoints, maxBoostDb, maxCutDb, spans, targetLevels } = correction;
  return fittedOf(project).flatMap((l) => {
    if (only && !only.includes(l.id)) return [];
    const { averaged, leftOut } = usableSpots(project, l.id);
    if (averaged.length === 0) return [];
    // subwoofers that play together are corrected as one: the same filter, made for their sum
    const isJoined = together.includes(l.id) && sums.averaged.length > 0;
    const first = isJoined ? together[0]! : l.id;
    const ref = (sweep: Sweep) => traceRef(sweep, project.calibrations);
    return {
      id: l.id,
      spots: isJoined ? sums.averaged.map((s) => s.sum) : averaged.map(ref),
      weights: (isJoined ? sums.averaged : averaged).map((s) => weightOf(s.spotId)),
      leftOut: isJoined ? sums.leftOut.map((s) => s.sum) : leftOut.map(ref),
      target: targetOf(project, correction, l.id),
      strength,
      strengthPoints,
      maxBoostDb,
      maxCutDb,
      besides: isJoined ? together.map((id) => correction.subs[id]!.sections) : [],
      span: spans[first] ?? null,
      targetOffsetDb: targetLevels[first] ?? null,
    };
  });
}

/** What is heard of a subwoofer at the home spot when it plays together with others; null otherwise. */
export function homeSum(project: DesignGround, correction: Correction, id: string): TraceSource | null {
  if (!togetherIds(project, correction).includes(id)) return null;
  const home = project.place.spots[0]!.id;
  return sumsOf(project, correction).averaged.find((s) => s.spotId === home)?.sum ?? null;
}

/** Sweeps that the designs use, averaged or judging. */
export const sweepsUsed = (project: Pick<Project, 'place' | 'sweeps' | 'roundId'>): Sweep[] =>
  fittedOf(project).flatMap((l) => {
    const { averaged, leftOut } = usableSpots(project, l.id);
    return [...averaged, ...leftOut];
  });
