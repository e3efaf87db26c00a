import { asSet, together, type SourceSetting } from '@pebble-hall/core/alignment';
import type { SourceField } from '@pebble-hall/core/coverage';
import type { Point } from '@pebble-hall/core/geometry';
import type { MeasuredNow } from '@pebble-hall/core/live';
import {
  isFromModels,
  keptById,
  leavesOf,
  plainSetting,
  sweepOf,
  type AlignSource,
  type AlignStep,
  type PlayedPart,
  type Project,
  type Spot,
  type Sweep,
} from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { GROUND_PLANE_DB } from '@pebble-hall/core/spots';
import type { LibraryCurve } from '@pebble-hall/core/traces';
import { onGrid } from './gridCurves';
import { traceName, type SeenTrace } from './libraryCurves';
import { curveOfField, heardAt, type HeardAt } from './modelledChannels';

/** A place where sources are heard together. */
export interface AlignedPoint {
  /** of a spot, a seat or the place to align at; null where traces were taken nobody knows where */
  id: string | null;
  name: string;
  position: Point | null;
  weight: number;
  /** by source id, on the points of the library, before anything is set */
  curves: ReadonlyMap<string, LibraryCurve>;
}

/** The sources of a step, as far as they are known. */
export interface AlignedSources {
  points: AlignedPoint[];
  /** why nothing can be brought together, as sentences */
  problems: string[];
  isReading: boolean;
}

/** The place to align, among the points of a step. */
export const PLACE = 'place';

type Known = Pick<Project, 'place' | 'sweeps' | 'roundId' | 'rounds' | 'kept' | 'alignSteps' | 'live'>;
/** Nothing but curves on the points of the library. */
type Found = { curve: LibraryCurve } | { problem: string } | { isReading: true };

const usable = (project: Known, spot: Spot, loudspeakerId: string): Sweep | undefined => {
  const sweep = sweepOf(project, spot.id, loudspeakerId);
  return sweep && sweep.verdict.state !== 'failed' ? sweep : undefined;
};

const innerStep = (project: Pick<Known, 'alignSteps'>, source: AlignSource): AlignStep | undefined => {
  const { of } = source;
  return of.kind === 'step' ? project.alignSteps.find((s) => s.id === of.stepId) : undefined;
};

/** Ids of the channels that a source is made of. */
export function channelsOf(project: Pick<Known, 'alignSteps'>, source: AlignSource): string[] {
  if (source.of.kind === 'channels') return source.of.loudspeakerIds;
  return (innerStep(project, source)?.sources ?? []).flatMap((s) => channelsOf(project, s));
}

/** Whether anything in a step is told by a model. */
export const isModelled = (project: Pick<Known, 'alignSteps'>, step: AlignStep): boolean =>
  step.sources.some((s) => leavesOf(project.alignSteps, s).some(isFromModels));

/** Where modelled sources of a step are heard: the place that they are brought together at first. */
export const modelledPlaces = (project: Pick<Known, 'place'>, step: AlignStep): HeardAt[] => [
  ...(step.alignAt
    ? [{ id: PLACE, name: 'the place to align', position: step.alignAt.position, areaId: null }]
    : []),
  ...heardAt(project),
];

/** Whether a source is known at every spot that was swept, and nowhere else. */
const isBySpot = (project: Known, source: AlignSource): boolean =>
  source.of.kind === 'channels' ||
  (source.of.kind === 'step' &&
    (innerStep(project, source)?.sources.every((s) => isBySpot(project, s)) ?? false));

/** Where all sources of a step are heard: the spots where all its channels were swept; where one of them is a trace, one of those. */
function spotsOf(project: Known, step: AlignStep): (Spot | null)[] {
  const channels = step.sources.flatMap((s) => channelsOf(project, s));
  if (channels.length === 0) return [null];
  const swept = project.place.spots.filter((spot) => channels.every((id) => usable(project, spot, id)));
  return step.sources.every((s) => isBySpot(project, s)) ? swept : swept.slice(0, 1);
}

/** What a step is made of, through all groups. */
const leavesIn = (project: Known, step: AlignStep): AlignSource[] =>
  step.sources.flatMap((s) => leavesOf(project.alignSteps, s));

/** Whether anything in a step is what Live hears now. */
export const isLive = (project: Pick<Known, 'alignSteps'>, step: AlignStep): boolean =>
  step.sources.some((s) => leavesOf(project.alignSteps, s).some(({ of }) => of.kind === 'live'));

/** Ids of the library's traces that a step rests on. */
export function traceIdsOf(project: Known, step: AlignStep): string[] {
  const ids = leavesIn(project, step).flatMap(({ of }) =>
    of.kind === 'traces' ? of.traceIds : of.kind === 'distance' ? [of.referenceId] : [],
  );
  const others = [step.target?.traceId ?? null, step.togetherId].filter((id) => id !== null);
  return [...new Set([...ids, ...others])].filter((id) => traceName(project, id) !== null);
}

/** Ids of the sweeps of its channels, which count as they were measured, however they are looked at in the library. */
export function sweepIdsOf(project: Known, step: AlignStep): string[] {
  const spots = spotsOf(project, step);
  const ids = leavesIn(project, step).flatMap(({ of }) =>
    of.kind === 'channels' && of.from === 'sweeps' ? of.loudspeakerIds : [],
  );
  return [...new Set(ids)].flatMap((id) =>
    spots.flatMap((spot) => (spot && usable(project, spot, id)?.id) ?? []),
  );
}

/** Where something is heard: at a spot of the walk, at a point of what the models give, or nobody knows where. */
interface Where {
  spot: Spot | null;
  /** its number among the points of the models */
  index: number;
}

/** What is known of the sources of a step. */
export interface KnownOfSources {
  /** the traces of `traceIdsOf`, as they are seen */
  seen: ReadonlyMap<string, SeenTrace>;
  /** the sweeps of `sweepIdsOf`, as they were measured */
  swept: ReadonlyMap<string, SeenTrace>;
  /** by channel, at `modelledPlaces`; null while it is worked out */
  fields: ReadonlyMap<string, SourceField> | null;
  /** what the measurements of the live session hear now; null while no session is on */
  heard: readonly Pick<MeasuredNow, 'id' | 'delayS' | 'curve'>[] | null;
}

/** The sources of a step at each place where they are heard together. */
export function alignedSources(project: Known, step: AlignStep, known: KnownOfSources): AlignedSources {
  const places = placesOf(project, step);
  if (typeof places === 'string') return { points: [], problems: [places], isReading: false };
  const problems = new Set<string>();
  let isReading = false;
  const points = places.map(({ where, ...place }): AlignedPoint => {
    const curves = new Map<string, LibraryCurve>();
    for (const source of step.sources) {
      const found = curveAt(project, source, where, known);
      if ('curve' in found) curves.set(source.id, found.curve);
      else if ('problem' in found) problems.add(found.problem);
      else isReading = true;
    }
    return { ...place, curves };
  });
  // where no spot counts, all do
  const counts = points.some((p) => p.weight > 0);
  return {
    points: problems.size > 0 || isReading ? [] : points.map((p) => (counts ? p : { ...p, weight: 1 })),
    problems: [...problems],
    isReading,
  };
}

/** Where the sources of a step are heard together, and how much each place counts; why there is none, as a sentence. */
function placesOf(
  project: Known,
  step: AlignStep,
): (Omit<AlignedPoint, 'curves'> & { where: Where })[] | string {
  if (isModelled(project, step)) {
    const leaves = step.sources.flatMap((s) => leavesOf(project.alignSteps, s));
    if (!leaves.every(isFromModels))
      return 'What models tell and what was measured have no level in common. Choose either for all sources of a step.';
    const isAlone = step.aim === 'place' && step.alignAt !== null;
    return modelledPlaces(project, step).map(({ areaId, ...at }, index) => ({
      ...at,
      weight:
        (at.id === PLACE) !== isAlone ? 0 : areaId === null ? 1 : (ownOf(step.areaWeights, areaId) ?? 1),
      where: { spot: null, index },
    }));
  }
  const spots = spotsOf(project, step);
  if (spots.length === 0)
    return 'At no spot do all of these channels have a usable sweep. Take the missing ones in Mic walk.';
  const alone = step.aim === 'place' && step.alignAt ? spotNear(spots, step.alignAt.position) : null;
  return spots.map((spot) => ({
    id: spot?.id ?? null,
    name: spot?.name ?? 'where the traces were taken',
    position: spot?.position ?? null,
    weight: !spot ? 1 : alone ? Number(spot === alone) : spot.inAverage ? spot.weight : 0,
    where: { spot, index: 0 },
  }));
}

/** What a map holds under a name of anybody's choosing. */
const ownOf = <T>(map: Record<string, T>, key: string): T | undefined =>
  Object.hasOwn(map, key) ? map[key] : undefined;

/** The spot that stands for a place that was chosen: the nearest one, seen from above. */
export function spotNear(spots: readonly (Spot | null)[], at: Point): Spot | null {
  const far = (s: Spot) => Math.hypot(s.position.x - at.x, s.position.y - at.y);
  return spots.reduce<Spot | null>((best, s) => (s && (!best || far(s) < far(best)) ? s : best), null);
}

function curveAt(project: Known, source: AlignSource, where: Where, known: KnownOfSources): Found {
  const { of } = source;
  const { seen } = known;
  switch (of.kind) {
    case 'traces':
      return traceAt(project, source, of.shownId, seen);
    case 'live':
      return heardAs(project, source, of.measurementId, known);
    case 'channels': {
      const gone = of.loudspeakerIds.find((id) => !project.place.loudspeakers.some((l) => l.id === id));
      if (gone !== undefined)
        return { problem: `${source.name} is no longer in the plan as it was. Choose it anew.` };
      return summed(
        of.loudspeakerIds.map((id) =>
          of.from === 'models' ? modelledAt(id, where, known) : sweptAt(project, source, id, where, known),
        ),
      );
    }
    case 'distance': {
      const gainDb = 20 * Math.log10(of.count / of.distanceM);
      const travelS = of.distanceM / speedOfSound(project.place.temperatureC);
      return withGain(traceAt(project, source, of.referenceId, seen), gainDb, travelS);
    }
    case 'step': {
      const inner = innerStep(project, source);
      if (!inner) return { problem: `The group that ${source.name} is made of is gone. Choose another one.` };
      return summed(
        inner.sources.map((part) => {
          const found = curveAt(project, part, where, known);
          return 'curve' in found ? { curve: asSet(found.curve, part) } : found;
        }),
      );
    }
  }
}

function heardAs(project: Known, source: AlignSource, id: string, { heard }: KnownOfSources): Found {
  if (!project.live.measurements.some((m) => m.id === id))
    return { problem: `The measurement of ${source.name} is gone from Live. Choose another one.` };
  if (!heard)
    return { problem: `Nothing is heard of ${source.name}. Start the session in Live, and play it alone.` };
  const now = heard.find((m) => m.id === id);
  if (!now?.curve) return { problem: `${source.name}: Live hears nothing yet that could be trusted.` };
  // what is taken off for the eye is part of when it arrives
  return withGain({ curve: onGrid({ ...now.curve, hasPhase: true }) }, 0, now.delayS);
}

/** All of them together; what keeps one of them away where there is something. */
function summed(parts: Found[]): Found {
  const missing = parts.find((p) => 'problem' in p) ?? parts.find((p) => !('curve' in p));
  if (missing) return missing;
  const curves = parts.flatMap((p) => ('curve' in p ? [p.curve] : []));
  return { curve: curves.length === 1 ? curves[0]! : { ...curves[0]!, ...together(curves) } };
}

function modelledAt(id: string, { index }: Where, { fields }: KnownOfSources): Found {
  const field = fields?.get(id);
  return field ? { curve: curveOfField(field, index) } : { isReading: true };
}

function sweptAt(
  project: Known,
  source: AlignSource,
  id: string,
  { spot }: Where,
  { swept }: KnownOfSources,
): Found {
  const sweep = spot && usable(project, spot, id);
  if (!sweep) return { problem: `${source.name} has no usable sweep there. Take it in Mic walk.` };
  return withGain(traceAt(project, source, sweep.id, swept), levelOf(sweep), 0);
}

/** A sweep by its samples, as it is to be added to others. */
export interface SweptPart {
  arrayId: string;
  as: SourceSetting;
  calibrationId: string | null;
}

/**
 * The sweeps of channels at a spot, each as it is played: to be added up sample by sample, since a long delay between two turns within
 * the bandwidth of a curve's points.
 * @returns null where not all of them were swept there, or through unlike microphones
 */
export function sweptParts(project: Known, parts: readonly PlayedPart[], spotId: string): SweptPart[] | null {
  const spot = project.place.spots.find((s) => s.id === spotId);
  const found = parts.flatMap(({ loudspeakerId, as }): SweptPart[] => {
    const sweep = spot && usable(project, spot, loudspeakerId);
    if (!sweep) return [];
    const { traceId: arrayId, calibrationId } = sweep;
    return [{ arrayId, calibrationId, as: { ...as, gainDb: as.gainDb + levelOf(sweep) } }];
  });
  const isWhole = found.length > 0 && found.length === parts.length;
  return isWhole && found.every((f) => f.calibrationId === found[0]!.calibrationId) ? found : null;
}

/** What lies between a sweep's samples and its level here, dB. */
const levelOf = (sweep: Sweep) => sweep.levelOffsetDb - (sweep.groundPlane ? GROUND_PLANE_DB : 0);

function traceAt(
  project: Known,
  source: AlignSource,
  id: string,
  seen: ReadonlyMap<string, SeenTrace>,
): Found {
  if (traceName(project, id) === null)
    return { problem: `The trace of ${source.name} is gone. Choose another one.` };
  if (keptById(project.kept).get(id)?.kind === 'spectrum')
    return { problem: `${source.name} is a spectrum: it has no phase that could be aligned.` };
  const trace = seen.get(id);
  if (trace?.problem) return { problem: `${source.name}: ${trace.problem}` };
  if (!trace?.curve) return { isReading: true };
  if (!trace.curve.hasPhase)
    return { problem: `${source.name} has levels, but no phase. What adds up with it cannot be told.` };
  // what Live took off for the eye is part of when it arrives
  const origin = keptById(project.kept).get(id)?.origin;
  const takenOffS = origin?.by === 'live' ? origin.delayS : 0;
  return withGain({ curve: onGrid(trace.curve) }, 0, takenOffS);
}

const withGain = (found: Found, gainDb: number, delayS: number): Found =>
  'curve' in found && (gainDb !== 0 || delayS !== 0)
    ? { curve: asSet(found.curve, { ...plainSetting(), gainDb, delayS }) }
    : found;
