import {
  asSet,
  gainOntoTarget,
  provenSum,
  readMeeting,
  readPair,
  together,
} from '@pebble-hall/core/alignment';
import { curveLevelDb } from '@pebble-hall/core/live';
import {
  keptById,
  partsTogether,
  type AlignSource,
  type AlignStep,
  type Project,
} from '@pebble-hall/core/project';
import { LIBRARY_GRID, type LibraryCurve } from '@pebble-hall/core/traces';
import { useMemo } from 'react';
import {
  alignedSources,
  channelsOf,
  isModelled,
  modelledPlaces,
  sweepIdsOf,
  sweptParts,
  traceIdsOf,
  type AlignedPoint,
  type AlignedSources,
} from '../../services/alignSources';
import { onGrid, smoothOnGrid } from '../../services/gridCurves';
import type { SeenTrace } from '../../services/libraryCurves';
import { modelledChannel, pressuresAsked } from '../../services/modelledChannels';
import { theProcessor } from '../../services/theProcessor';
import { useJob } from '../../services/useJob';
import { useLibrary } from '../../services/useLibrary';
import { useHeardNow } from './useHeardNow';

/** Levels are held against the target smoothed over this part of an octave. */
const LEVEL_FRACTION = 12;

/** The sources of a step where they are heard, and what they are held against. */
export function useStepSources(project: Project, step: AlignStep) {
  // by what they are made of: a source that is only set otherwise asks for the same traces
  const ids = useMemo(() => traceIdsOf(project, step), [project, step]);
  const seen = useLibrary(project, ids);
  const sweepIds = useMemo(() => sweepIdsOf(project, step), [project, step]);
  const measuredAlone = useMemo(() => ({ ...project, sweepLooks: {} }), [project]);
  const swept = useLibrary(measuredAlone, sweepIds);
  const { fields, problem } = useFields(project, step);
  const heard = useHeardNow(project, step);
  const sources = useMemo((): AlignedSources => {
    const found = alignedSources(project, step, { seen, swept, fields, heard });
    return problem === null ? found : { ...found, points: [], problems: [...found.problems, problem] };
  }, [project, step, seen, swept, fields, heard, problem]);
  const targetDb = useMemo(() => targetOf(step, seen), [step, seen]);
  const measured = (step.togetherId !== null && seen.get(step.togetherId)?.curve) || null;
  return { sources, targetDb, measured };
}

/** What the models of a step's channels give where it is heard. */
function useFields(project: Project, step: AlignStep) {
  const asked = useMemo(() => {
    if (!isModelled(project, step)) return null;
    const { rate } = theProcessor().profile;
    const ids = [...new Set(step.sources.flatMap((s) => channelsOf(project, s)))];
    const channels = ids.flatMap((id) => modelledChannel(project, id, rate) ?? []);
    const points = modelledPlaces(project, step).map((p) => p.position);
    return channels.length > 0 ? pressuresAsked(project, channels, points, LIBRARY_GRID) : null;
  }, [project, step]);
  const { value, problem } = useJob('coverage.pressures', asked);
  return { fields: value, problem };
}

/**
 * A sum as it was measured against the one that is predicted here; null where the sources share nothing, or nothing can be judged.
 * @param predicted from the samples, where they are known; else from the curves that are shown
 */
export function proofAt(
  read: ReturnType<typeof readAt>,
  measured: LibraryCurve,
  predicted: LibraryCurve | null,
) {
  const { own, others, reading } = read;
  if (!('weight' in reading)) return null;
  const sum = predicted ? onGrid(predicted) : together([others, own]);
  return provenSum(sum, onGrid(measured), reading);
}

/** What a sweep of all together would give at the spot where one was made, as the step is set now. @returns busy while it is not known yet */
export function usePredicted(project: Project, step: AlignStep) {
  const asked = useMemo(() => {
    const origin = step.togetherId === null ? null : keptById(project.kept).get(step.togetherId)?.origin;
    const now = partsTogether(project, step);
    if (origin?.by !== 'together' || !now) return null;
    const parts = sweptParts(project, now.parts, origin.spotId);
    const before = sweptParts(project, origin.parts, origin.spotId);
    if (!parts || !before) return null;
    const { calibrationId } = parts[0]!;
    return {
      parts: parts.map(({ arrayId, as }) => ({
        arrayId,
        as: { ...as, gainDb: as.gainDb + now.lowerDb },
      })),
      before: before.map(({ arrayId, as }) => ({ arrayId, as })),
      calibration: (calibrationId !== null && project.calibrations[calibrationId]) || null,
    };
  }, [project, step]);
  const { value, problem } = useJob('views.together', asked);
  return { predicted: asked ? value : null, isReading: asked !== null && !value && problem === null };
}

function targetOf(step: AlignStep, seen: ReadonlyMap<string, SeenTrace>): Float64Array | null {
  const curve = step.target && seen.get(step.target.traceId)?.curve;
  return curve ? curveLevelDb(smoothOnGrid(curve, LEVEL_FRACTION)) : null;
}

/** All sources at a point but one, as they are set, together. */
export function othersAt(step: AlignStep, point: AlignedPoint, movedId: string): LibraryCurve {
  const others = step.sources.filter((s) => s.id !== movedId).map((s) => asSet(point.curves.get(s.id)!, s));
  return { ...others[0]!, ...together(others) };
}

/** One source against all the others at a point. */
export function readAt(step: AlignStep, point: AlignedPoint, moved: AlignSource) {
  const own = asSet(point.curves.get(moved.id)!, moved);
  const others = othersAt(step, point, moved.id);
  return { own, others, reading: readPair(others, own) };
}

/** How the levels of two lie against the target; null where there is none. */
export const meetingAt = (others: LibraryCurve, own: LibraryCurve, targetDb: Float64Array | null) =>
  targetDb && readMeeting(smoothOnGrid(others, LEVEL_FRACTION), smoothOnGrid(own, LEVEL_FRACTION), targetDb);

/** The gain that lays a source on the target, on top of nothing; null without one. */
export const ontoTarget = (point: AlignedPoint, sourceId: string, targetDb: Float64Array | null) =>
  targetDb && gainOntoTarget(point.curves.get(sourceId)!, targetDb);
