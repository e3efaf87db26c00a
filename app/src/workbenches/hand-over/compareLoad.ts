import { mainTap, type Span } from '@pebble-hall/core/correct';
import { drivesOf, plainOutput, playedSpan, type Drive } from '@pebble-hall/core/processing';
import type { MemoryLoad, Project, Sweep } from '@pebble-hall/core/project';
import { logGrid, smoothLevels } from '@pebble-hall/core/signal';
import { designWorker, traceKey, traceOf } from '../../parts/designs';
import { PROCESSOR } from '../../parts/exactFilters';
import { sweepOf } from '../../parts/progress';
import { repository } from '../../store';
import { verifiedIds, verifiedOf, type VerifiedStage } from '../../parts/verified';
import { othersOf } from './arrivals';
import { differenceOf, heardOf, type Difference } from './difference';
import { missReasons } from './missReasons';
import type { HeardWay } from '../../workers/design.worker';

export const grid = logGrid();

/** One channel at a spot: as found, as predicted from what was loaded, as measured again. */
export interface Comparison {
  id: string;
  /** of its own span what it plays with the crossovers as loaded */
  span: Span;
  foundDb: Float64Array;
  predictedDb: Float64Array;
  verifiedDb: Float64Array | null;
  difference: Difference | null;
  /** why it is not what was predicted, where it is not */
  reasons: string[];
}

/** What comparisons of a load at a spot are computed from, as text that changes when any of it does. */
export const comparisonKey = (
  project: Project,
  load: MemoryLoad,
  spotId: string,
  stage: VerifiedStage,
): string =>
  [
    load.id,
    spotId,
    stage,
    project.rig.sweepS,
    ...project.place.loudspeakers.flatMap(({ id, output }) => [
      id,
      output,
      ...[sweepOf(project, spotId, id), verifiedOf(project, load, id, spotId, stage)].map((s) =>
        s ? traceKey(s) : '',
      ),
    ]),
  ].join('|');

/** So many are kept: a plan of spots and what the page looks at. */
const KEPT = 40;
const kept = new Map<string, Promise<Comparison[]>>();

/**
 * Comparisons of a load at a spot; computed from stored samples in a worker, once for all who ask: the page, the table
 * of all spots, the verdict that is kept and the report.
 */
export function compareLoad(
  project: Project,
  load: MemoryLoad,
  spotId: string,
  stage: VerifiedStage = 'verified',
): Promise<Comparison[]> {
  const key = comparisonKey(project, load, spotId, stage);
  const known = kept.get(key);
  if (known) return known;
  const made = compute(project, load, spotId, stage);
  kept.set(key, made);
  made.catch(() => kept.delete(key)); // what is missing now may be there the next time
  if (kept.size > KEPT) kept.delete(kept.keys().next().value!);
  return made;
}

async function compute(
  project: Project,
  load: MemoryLoad,
  spotId: string,
  stage: VerifiedStage,
): Promise<Comparison[]> {
  const list: Comparison[] = [];
  const heard: { id: string; verified: Sweep | undefined; found: Sweep | undefined; own: HeardWay }[] = [];
  for (const id of verifiedIds(project, load, stage)) {
    const output = outputOf(project, id);
    const drives = stage === 'verified' ? [{ output, feed: null }] : drivesOf(load.outputs ?? [], output);
    const ways = await Promise.all(drives.map((drive) => wayOf(project, load, spotId, drive)));
    const own = ways[0];
    if (!own || ways.some((w) => w === null)) continue;
    const foundDb = (await designWorker().call((api) => api.response(own.trace))).levelDb;
    const predictedDb = await designWorker().call((api) => api.heard(ways as HeardWay[]));
    const verified = verifiedOf(project, load, id, spotId, stage);
    const verifiedTrace = verified && (await traceOf(verified, project.calibrations));
    const verifiedDb = verifiedTrace
      ? (await designWorker().call((api) => api.response(verifiedTrace))).levelDb
      : null;
    const span = comparedSpan(project, load, id, drives);
    const difference =
      verified && verifiedDb
        ? differenceOf(
            grid,
            predictedDb,
            heardOf(foundDb, sweepOf(project, spotId, id), project.rig.sweepS),
            heardOf(verifiedDb, verified, project.rig.sweepS),
            span,
          )
        : null;
    list.push({ id, span, foundDb, predictedDb, verifiedDb, difference, reasons: [] });
    heard.push({ id, verified, own, found: sweepOf(project, spotId, id) });
  }
  const arrivals = heard.map(({ id, verified, own, found }) => ({
    id,
    foundS: found?.arrivalS ?? null,
    laterS: verified ? laterThanExpected(found, verified, own) : null,
  }));
  return list.map((c, i) => {
    const { id, predictedDb, verifiedDb, span, difference } = c;
    const { verified } = heard[i]!;
    if (!verified || !verifiedDb || !difference || difference.agrees) return c;
    const loudspeaker = project.place.loudspeakers.find((l) => l.id === id)!;
    const reasons = missReasons(grid, {
      predictedDb: smoothLevels(grid, predictedDb, 6),
      verifiedDb: smoothLevels(grid, verifiedDb, 6),
      span,
      ...othersOf(project, arrivals, arrivals[i]!),
      role: loudspeaker.role,
      marginDb: marginNear(verified, difference.worstAt),
      sameMemory: verified.memory.checksum === load.checksum,
    });
    return { ...c, reasons };
  });
}

const outputOf = ({ place }: Project, id: string): number =>
  place.loudspeakers.find((l) => l.id === id)?.output ?? 0;
const loudspeakerOn = ({ place }: Project, output: number) =>
  place.loudspeakers.find((l) => l.output === output);

/** What one loudspeaker does at a spot with a load; null where it was not measured there, or its filter is gone. */
async function wayOf(
  project: Project,
  load: MemoryLoad,
  spotId: string,
  { output, feed }: Drive,
): Promise<HeardWay | null> {
  const id = loudspeakerOn(project, output)?.id;
  const found = id && sweepOf(project, spotId, id);
  if (!found) return null;
  const filterId = load.filters[id];
  const filter = filterId ? await repository().array(filterId) : null;
  if (filterId && !filter) return null;
  return {
    trace: await traceOf(found, project.calibrations),
    before: load.before?.[output - 1] ?? plainOutput(),
    after: load.outputs?.[output - 1] ?? plainOutput(),
    fir: filter?.samples ?? null,
    feed,
  };
}

/** Where a prediction is held against what was measured: from the span of whoever plays the lows to the channel's own end. */
function comparedSpan(project: Project, { spans, outputs }: MemoryLoad, id: string, drives: Drive[]): Span {
  const played = drives.flatMap(({ output }) => {
    const own = spans[loudspeakerOn(project, output)?.id ?? ''];
    return own ? [playedSpan(own, outputs?.[output - 1] ?? plainOutput(), PROCESSOR.rate)] : [];
  });
  // the first drive is the channel itself
  return { from: Math.min(...played.map((s) => s.from)), to: (played[0] ?? spans[id]!).to };
}

/** By how much sound arrives later than the settings let expect, seconds; null where it is not known. */
function laterThanExpected(found: Sweep | undefined, verified: Sweep, { before, after, fir }: HeardWay) {
  if (verified.arrivalS === null || !found || found.arrivalS === null) return null;
  // with bass the subwoofers may be heard first: that tells nothing of the microphone
  if (verified.stage === 'verified with bass') return null;
  const meant = (after.delayMs - before.delayMs) / 1000 + latencyS(fir);
  return verified.arrivalS - found.arrivalS - meant;
}

/** How far a sweep stood above the noise where it misses most: its own band's margin, or the whole sweep's if that is less. */
function marginNear({ margins, verdict }: Sweep, frequency: number): number {
  const away = (m: Sweep['margins'][number]) => Math.abs(Math.log(m.centre / frequency));
  const near = margins.length > 0 ? margins.reduce((a, b) => (away(b) < away(a) ? b : a)) : null;
  return Math.min(verdict.marginDb, near?.marginDb ?? Infinity);
}

/** Where a filter's main tap stands: by so much it makes the sound later. */
const latencyS = (fir: Float32Array | null): number => (fir ? mainTap(fir) / PROCESSOR.rate : 0);
