import { theProcessor } from '../../../services/theProcessor';
import { mainTap, type Span } from '@pebble-hall/core/correct';
import { drivesOf, plainOutput, playedSpan, type Drive } from '@pebble-hall/core/processing';
import {
  type MemoryLoad,
  type Project,
  type ProjectArray,
  type Sweep,
  sweepOf,
  verifiedIds,
  verifiedOf,
  type VerifiedStage,
  loudspeakerById,
  loudspeakerOn,
} from '@pebble-hall/core/project';
import { logGrid, smoothLevels } from '@pebble-hall/core/signal';
import { traceRef, type HeardOutput } from '@pebble-hall/core/jobs';
import { AlikeCache } from '../../../services/alikeCache';
import { runJob } from '../../../services/jobs';
import { repository } from '../../../store';
import { othersOf } from './arrivals';
import { differenceOf, heardOf, type Difference } from './difference';
import { faultsOf } from './faultsOf';
import { missReasons } from './missReasons';

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

/** All that comparisons of a load at a spot are computed from; alike as long as none of it has changed. */
export interface ComparisonGround {
  load: MemoryLoad;
  /** filters of a load that is not stored; otherwise they are found by their ids */
  held: ProjectArray[];
  spotId: string;
  stage: VerifiedStage;
  sweepS: number;
  place: Pick<Project['place'], 'loudspeakers'>;
  calibrations: Project['calibrations'];
  /** of each loudspeaker, as found and measured again */
  sweeps: Record<string, { found: Sweep | null; verified: Sweep | null }>;
}

const NONE_HELD: ProjectArray[] = [];

export const comparisonGround = (
  project: Project,
  // the verdict is made of the comparisons
  { verdict: _verdict, ...load }: MemoryLoad,
  spotId: string,
  stage: VerifiedStage,
  held: ProjectArray[] = NONE_HELD,
): ComparisonGround => {
  const { loudspeakers } = project.place;
  const whole = { ...load, verdict: null };
  return {
    load: whole,
    held,
    spotId,
    stage,
    sweepS: project.rig.sweepS,
    place: { loudspeakers },
    calibrations: project.calibrations,
    sweeps: Object.fromEntries(
      loudspeakers.map(({ id }) => [
        id,
        {
          found: sweepOf(project, spotId, id) ?? null,
          verified: verifiedOf(project, whole, id, spotId, stage) ?? null,
        },
      ]),
    ),
  };
};

/** So many are kept: a plan of spots and what the page looks at. */
const kept = new AlikeCache(40, compute);

/**
 * Comparisons of a load at a spot; computed from stored samples in a worker, once for all who ask: the page, the table
 * of all spots, the verdict that is kept and the report.
 */
export const compareLoad = (ground: ComparisonGround): Promise<Comparison[]> => kept.get(ground);

async function compute(ground: ComparisonGround): Promise<Comparison[]> {
  const { load, stage, sweepS, calibrations } = ground;
  const list: Comparison[] = [];
  const heard: { id: string; verified: Sweep | null; found: Sweep | null; own: HeardOutput }[] = [];
  for (const id of verifiedIds(ground, load, stage)) {
    const output = outputOf(ground, id);
    const drives = stage === 'verified' ? [{ output, feed: null }] : drivesOf(load.outputs ?? [], output);
    const outputs = await Promise.all(drives.map((drive) => heardOutput(ground, drive)));
    const own = outputs[0];
    if (!own || outputs.some((o) => o === null)) continue;
    const { found, verified } = ground.sweeps[id]!;
    const foundDb = (await runJob('design.response', own.trace)).levelDb;
    const predictedDb = await runJob('design.heard', outputs as HeardOutput[]);
    const verifiedDb = verified
      ? (await runJob('design.response', traceRef(verified, calibrations))).levelDb
      : null;
    const span = comparedSpan(ground, id, drives);
    const difference =
      verified && verifiedDb
        ? differenceOf(
            grid,
            predictedDb,
            heardOf(foundDb, found ?? undefined, sweepS),
            heardOf(verifiedDb, verified, sweepS),
            span,
          )
        : null;
    list.push({ id, span, foundDb, predictedDb, verifiedDb, difference, reasons: [] });
    heard.push({ id, verified, own, found });
  }
  const arrivals = heard.map(({ id, verified, own, found }) => ({
    id,
    foundS: found?.arrivalS ?? null,
    laterS: verified ? laterThanExpected(found, verified, own) : null,
  }));
  return list.map((c, i) => {
    const { id, predictedDb, verifiedDb, span, difference } = c;
    const { verified, found, own } = heard[i]!;
    if (!verified || !verifiedDb || !difference) return c;
    const loudspeaker = loudspeakerById(ground.place, id)!;
    const others = othersOf(ground, arrivals, arrivals[i]!);
    const faults = faultsOf({
      role: loudspeaker.role,
      found,
      verified,
      isInverted: own.before.inverted !== own.after.inverted,
      levelAgrees: difference.agrees,
      ...others,
    });
    // a level that agrees is no pass while something else is wrong
    if (difference.agrees)
      return faults.length === 0
        ? c
        : { ...c, difference: { ...difference, agrees: false }, reasons: faults };
    if (!difference.isJudged && faults.length > 0) return { ...c, reasons: faults };
    if (!difference.isJudged) return { ...c, reasons: [notJudged(difference, verified.levelDbfs)] };
    const reasons = missReasons(grid, {
      predictedDb: smoothLevels(grid, predictedDb, 6),
      verifiedDb: smoothLevels(grid, verifiedDb, 6),
      span,
      ...others,
      role: loudspeaker.role,
      snrDb: marginNear(verified, difference.worstAt),
      sameMemory: verified.memory.checksum === load.checksum,
    });
    return { ...c, reasons: [...faults, ...reasons] };
  });
}

type Outputs = Pick<ComparisonGround, 'place'>;
const outputOf = ({ place }: Outputs, id: string): number => loudspeakerById(place, id)?.output ?? 0;

/** What one loudspeaker does at a spot with a load; null where it was not measured there, or its filter is gone. */
async function heardOutput(ground: ComparisonGround, { output, feed }: Drive): Promise<HeardOutput | null> {
  const { load, held, sweeps, calibrations } = ground;
  const id = loudspeakerOn(ground.place, output)?.id;
  const found = id && sweeps[id]?.found;
  if (!found) return null;
  const filterId = load.filters[id];
  const stored = async (arrayId: string) =>
    held.find((a) => a.id === arrayId) ?? (await repository().array(arrayId));
  const filter = filterId ? await stored(filterId) : null;
  if (filterId && !filter) return null;
  return {
    trace: traceRef(found, calibrations),
    before: load.before?.[output - 1] ?? plainOutput(),
    after: load.outputs?.[output - 1] ?? plainOutput(),
    fir: filter?.samples ?? null,
    feed,
  };
}

/** Where a prediction is held against what was measured: from the span of whoever plays the lows to the channel's own end. */
function comparedSpan(ground: ComparisonGround, id: string, drives: Drive[]): Span {
  const { spans, outputs } = ground.load;
  const played = drives.flatMap(({ output }) => {
    const own = spans[loudspeakerOn(ground.place, output)?.id ?? ''];
    return own ? [playedSpan(own, outputs?.[output - 1] ?? plainOutput(), theProcessor().profile.rate)] : [];
  });
  // the first drive is the channel itself
  return { from: Math.min(...played.map((s) => s.from)), to: (played[0] ?? spans[id]!).to };
}

/** By how much sound arrives later than the settings let expect, seconds; null where it is not known. */
function laterThanExpected(found: Sweep | null, verified: Sweep, { before, after, fir }: HeardOutput) {
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
  return Math.min(verdict.snrDb, near?.snrDb ?? Infinity);
}

/** Where a filter's main tap stands: by so much it makes the sound later. */
const latencyS = (fir: Float32Array | null): number => (fir ? mainTap(fir) / theProcessor().profile.rate : 0);

/** Why a channel was not judged, and what to do. @param levelDbfs that it was measured at */
export function notJudged({ raiseDb }: Pick<Difference, 'raiseDb'>, levelDbfs: number): string {
  const wanted = Math.ceil(levelDbfs + raiseDb);
  const what =
    wanted <= LOUDEST_DBFS
      ? `measure at ${wanted} dBFS`
      : 'measure louder, or with longer sweeps, or when it is quieter';
  return `not judged: too near the noise, ${what}`.replace('-', '\u2212');
}

/** Sweeps hotter than this are seldom played. */
const LOUDEST_DBFS = -6;
