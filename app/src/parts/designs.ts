import type { ChannelDesign, ChannelRequest } from '@pebble-hall/core/correct';
import {
  targetOf,
  variantOf,
  type Calibration,
  type Correction,
  type Project,
  type Sweep,
} from '@pebble-hall/core/project';
import { gainOfDb } from '@pebble-hall/core/signal';
import { GROUND_PLANE_DB } from '@pebble-hall/core/spots';
import { repository } from '../store';
import type { DesignApi, SumPart, TraceToAdd } from '../workers/design.worker';
import { startWorker, type RunningWorker } from '../workers/startWorker';
import { fittedOf, usableSpots } from './progress';

let worker: RunningWorker<DesignApi> | undefined;

/** The one design worker of this page; it keeps what it has worked out of traces. */
export const designWorker = (): RunningWorker<DesignApi> =>
  (worker ??= startWorker<DesignApi>(
    () => new Worker(new URL('../workers/design.worker.ts', import.meta.url), { type: 'module' }),
  ));

/** What of a sweep is wanted: its curve, which a floor-and-ear pair makes of two microphones, or its impulse response, the ear's. */
export type TracePart = 'curve' | 'impulse';

type Seen = Pick<Sweep, 'traceId' | 'calibrationId' | 'floor' | 'groundPlane' | 'levelOffsetDb'>;
const arrayIdOf = ({ traceId, floor }: Seen, part: TracePart) =>
  part === 'curve' && floor ? floor.joinedId : traceId;

/** What is added to a sweep's level when it is read: the doubled pressure of the floor taken off, another gain made good. */
const gainDbOf = ({ groundPlane, levelOffsetDb }: Seen) =>
  levelOffsetDb - (groundPlane ? GROUND_PLANE_DB : 0);

/** A trace with the calibration that it is seen through. */
export const traceKey = (sweep: Seen, part: TracePart = 'curve'): string =>
  `${arrayIdOf(sweep, part)} ${sweep.calibrationId ?? ''} ${gainDbOf(sweep).toFixed(2)}`;

/** A sweep's samples with the calibration that it was taken with, at the level that compares with the others. */
export async function traceOf(
  sweep: Sweep,
  calibrations: Record<string, Calibration>,
  part: TracePart = 'curve',
): Promise<TraceToAdd> {
  const array = await repository().array(arrayIdOf(sweep, part));
  if (!array) throw new Error('A sweep has lost its samples; repeat it in the Mic walk.');
  const calibration = sweep.calibrationId ? (calibrations[sweep.calibrationId] ?? null) : null;
  const { rate, zero } = array;
  const gain = gainOfDb(gainDbOf(sweep));
  const samples = gain === 1 ? array.samples : array.samples.map((v) => gain * v);
  return { key: traceKey(sweep, part), samples, rate, zero, calibration };
}

/** Hands the worker those traces that it does not know yet. */
export async function provideTraces(
  sweeps: Sweep[],
  calibrations: Record<string, Calibration>,
): Promise<void> {
  const known = await designWorker().call((api) => api.has(sweeps.map((s) => traceKey(s))));
  for (const [i, sweep] of sweeps.entries()) {
    if (known[i]) continue;
    const trace = await traceOf(sweep, calibrations);
    await designWorker().call((api) => api.add(trace));
  }
}

/** Name of what several subwoofers make together at a spot, with the settings that they have. */
const sumKey = (parts: SumPart[]) => `sum ${JSON.stringify(parts)}`;

/** Subwoofers that work together in a correction, in the order of the place. */
export const togetherOf = (project: Project, correction: Correction): string[] =>
  fittedOf(project)
    .map((l) => l.id)
    .filter((id) => correction.subs[id] !== undefined);

/** What each subwoofer contributes to their sum at each spot that has all of them. */
export function sumsOf(
  project: Project,
  correction: Correction,
): { averaged: SumPart[][]; leftOut: SumPart[][]; spotIds: string[] } {
  const ids = togetherOf(project, correction);
  const own = ids.map((id) => usableSpots(project, id));
  const collect = (which: 'averaged' | 'leftOut') =>
    project.place.spots.flatMap((spot) => {
      const parts = own.map((o) => o[which].find((s) => s.spotId === spot.id));
      if (parts.length < 2 || parts.some((p) => p === undefined)) return [];
      return [
        {
          spotId: spot.id,
          parts: parts.map((s, i): SumPart => ({ key: traceKey(s!), setting: correction.subs[ids[i]!]! })),
        },
      ];
    });
  const averaged = collect('averaged');
  return {
    averaged: averaged.map((a) => a.parts),
    leftOut: collect('leftOut').map((a) => a.parts),
    spotIds: averaged.map((a) => a.spotId),
  };
}

/** What the design of every channel that can be corrected rests on. */
export function channelRequests(
  project: Project,
  correction: Correction = variantOf(project).correction,
): ChannelRequest[] {
  const together = togetherOf(project, correction);
  const sums = sumsOf(project, correction);
  const isTogether = (id: string) => together.includes(id) && sums.averaged.length > 0;
  return fittedOf(project).flatMap((l) => {
    const { averaged, leftOut } = usableSpots(project, l.id);
    if (averaged.length === 0) return [];
    const { strength, strengthPoints, maxBoostDb, maxCutDb, spans, targetLevels } = correction;
    const weightOf = (spotId: string) => project.place.spots.find((spot) => spot.id === spotId)!.weight;
    // subwoofers that work together are corrected as one: the same filter, made for their sum
    const first = isTogether(l.id) ? together[0]! : l.id;
    return {
      id: l.id,
      ...(isTogether(l.id)
        ? {
            spots: sums.averaged.map(sumKey),
            weights: sums.spotIds.map(weightOf),
            leftOut: sums.leftOut.map(sumKey),
          }
        : {
            spots: averaged.map((s) => traceKey(s)),
            weights: averaged.map((s) => weightOf(s.spotId)),
            leftOut: leftOut.map((s) => traceKey(s)),
          }),
      target: targetOf(project, correction, l.id),
      strength,
      strengthPoints,
      maxBoostDb,
      maxCutDb,
      span: spans[first] ?? null,
      targetOffsetDb: targetLevels[first] ?? null,
    };
  });
}

/** The key of what is heard of a subwoofer at the home spot when it works together with others; null otherwise. */
export function homeKeyOf(project: Project, correction: Correction, id: string): string | null {
  if (!togetherOf(project, correction).includes(id)) return null;
  const { averaged, spotIds } = sumsOf(project, correction);
  const at = spotIds.indexOf(project.place.spots[0]!.id);
  return at < 0 ? null : sumKey(averaged[at]!);
}

/** Hands the worker all that the designs of a correction use. */
export async function provideDesigns(project: Project, correction: Correction): Promise<void> {
  await provideTraces(sweepsUsed(project), project.calibrations);
  const { averaged, leftOut } = sumsOf(project, correction);
  for (const parts of [...averaged, ...leftOut]) {
    const key = sumKey(parts);
    const [known] = await designWorker().call((api) => api.has([key]));
    if (!known) await designWorker().call((api) => api.addSum(key, parts));
  }
}

/** Sweeps that the designs use, averaged or judging. */
export const sweepsUsed = (project: Project): Sweep[] =>
  fittedOf(project).flatMap((l) => {
    const { averaged, leftOut } = usableSpots(project, l.id);
    return [...averaged, ...leftOut];
  });

export type Designs = Map<string, ChannelDesign>;
export const designAll = async (requests: ChannelRequest[]): Promise<Designs> =>
  new Map((await designWorker().call((api) => api.design(requests))).map((d) => [d.id, d]));
