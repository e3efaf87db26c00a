import { asSet, together } from '@pebble-hall/core/alignment';
import {
  keptById,
  sweepOf,
  type AlignSource,
  type AlignStep,
  type Project,
  type Spot,
  type Sweep,
} from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { GROUND_PLANE_DB } from '@pebble-hall/core/spots';
import type { LibraryCurve } from '@pebble-hall/core/traces';
import { onGrid } from './gridCurves';
import { traceName, type SeenTrace } from './libraryCurves';

/** A place where sources are heard together. */
export interface AlignedPoint {
  /** of the spot; null where traces were taken nobody knows where */
  spotId: string | null;
  name: string;
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

type Known = Pick<Project, 'place' | 'sweeps' | 'roundId' | 'rounds' | 'kept' | 'alignSteps'>;
/** Nothing but curves on the points of the library. */
type Found = { curve: LibraryCurve } | { problem: string } | { isReading: true };

const usable = (project: Known, spot: Spot, loudspeakerId: string): Sweep | undefined => {
  const sweep = sweepOf(project, spot.id, loudspeakerId);
  return sweep && sweep.verdict.state !== 'failed' ? sweep : undefined;
};

const innerStep = (project: Known, source: AlignSource): AlignStep | undefined => {
  const { of } = source;
  return of.kind === 'step' ? project.alignSteps.find((s) => s.id === of.stepId) : undefined;
};

/** Ids of the channels that a source is made of. */
export function channelsOf(project: Known, source: AlignSource): string[] {
  if (source.of.kind === 'channel') return [source.of.loudspeakerId];
  return (innerStep(project, source)?.sources ?? []).flatMap((s) => channelsOf(project, s));
}

/** Whether a source is known at every spot that was swept, and nowhere else. */
const isBySpot = (project: Known, source: AlignSource): boolean =>
  source.of.kind === 'channel' ||
  (source.of.kind === 'step' &&
    (innerStep(project, source)?.sources.every((s) => isBySpot(project, s)) ?? false));

/** Where all sources of a step are heard: the spots where all its channels were swept; where one of them is a trace, one of those. */
function spotsOf(project: Known, step: AlignStep): (Spot | null)[] {
  const channels = step.sources.flatMap((s) => channelsOf(project, s));
  if (channels.length === 0) return [null];
  const swept = project.place.spots.filter((spot) => channels.every((id) => usable(project, spot, id)));
  return step.sources.every((s) => isBySpot(project, s)) ? swept : swept.slice(0, 1);
}

/** Ids of the library's traces that a step rests on. */
export function traceIdsOf(project: Known, step: AlignStep): string[] {
  const spots = spotsOf(project, step);
  const of = (source: AlignSource): string[] => {
    switch (source.of.kind) {
      case 'traces':
        return source.of.traceIds;
      case 'distance':
        return [source.of.referenceId];
      case 'channel': {
        const { loudspeakerId } = source.of;
        return spots.flatMap((spot) => (spot && usable(project, spot, loudspeakerId)?.id) ?? []);
      }
      case 'step':
        return (innerStep(project, source)?.sources ?? []).flatMap(of);
    }
  };
  const others = [step.target?.traceId ?? null, step.togetherId].filter((id) => id !== null);
  const ids = [...step.sources.flatMap(of), ...others];
  return [...new Set(ids)].filter((id) => traceName(project, id) !== null);
}

/** The sources of a step at each place where they are heard together. @param seen the traces of `traceIdsOf` */
export function alignedSources(
  project: Known,
  step: AlignStep,
  seen: ReadonlyMap<string, SeenTrace>,
): AlignedSources {
  const spots = spotsOf(project, step);
  if (spots.length === 0)
    return {
      points: [],
      problems: [
        'At no spot do all of these channels have a usable sweep. Take the missing ones in Mic walk.',
      ],
      isReading: false,
    };
  const problems = new Set<string>();
  let isReading = false;
  const points = spots.map((spot): AlignedPoint => {
    const curves = new Map<string, LibraryCurve>();
    for (const source of step.sources) {
      const found = curveAt(project, source, spot, seen);
      if ('curve' in found) curves.set(source.id, found.curve);
      else if ('problem' in found) problems.add(found.problem);
      else isReading = true;
    }
    return {
      spotId: spot?.id ?? null,
      name: spot?.name ?? 'where the traces were taken',
      weight: spot ? (spot.inAverage ? spot.weight : 0) : 1,
      curves,
    };
  });
  // where no spot counts, all do
  const counts = points.some((p) => p.weight > 0);
  return {
    points: problems.size > 0 || isReading ? [] : points.map((p) => (counts ? p : { ...p, weight: 1 })),
    problems: [...problems],
    isReading,
  };
}

function curveAt(
  project: Known,
  source: AlignSource,
  spot: Spot | null,
  seen: ReadonlyMap<string, SeenTrace>,
): Found {
  const { of } = source;
  switch (of.kind) {
    case 'traces':
      return traceAt(project, source, of.shownId, seen);
    case 'channel': {
      const sweep = spot && usable(project, spot, of.loudspeakerId);
      if (!sweep) return { problem: `${source.name} has no usable sweep there. Take it in Mic walk.` };
      const gainDb = sweep.levelOffsetDb - (sweep.groundPlane ? GROUND_PLANE_DB : 0);
      return withGain(traceAt(project, source, sweep.id, seen), gainDb, 0);
    }
    case 'distance': {
      const gainDb = 20 * Math.log10(of.count / of.distanceM);
      const travelS = of.distanceM / speedOfSound(project.place.temperatureC);
      return withGain(traceAt(project, source, of.referenceId, seen), gainDb, travelS);
    }
    case 'step': {
      const inner = innerStep(project, source);
      if (!inner) return { problem: `The group that ${source.name} is made of is gone. Choose another one.` };
      const parts: LibraryCurve[] = [];
      for (const part of inner.sources) {
        const found = curveAt(project, part, spot, seen);
        if (!('curve' in found)) return found;
        parts.push(asSet(found.curve, part));
      }
      return { curve: { ...parts[0]!, ...together(parts) } };
    }
  }
}

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
    ? { curve: asSet(found.curve, { gainDb, delayS, inverted: false, allPasses: [] }) }
    : found;
