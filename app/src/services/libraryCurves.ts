import {
  evaluateFormula,
  viewedCurve,
  withoutMicrophone,
  workOut,
  type Formula,
  type LibraryCurve,
  type LongWork,
} from '@pebble-hall/core/traces';
import { isCircular, keptById, lookOf, restsOn, type Project, type Sweep } from '@pebble-hall/core/project';
import { repository } from '../store';
import { runJob } from './jobs';
import { unpackCurve } from './keepTrace';
import { referenceOf } from './references';

export type Shelf = Pick<Project, 'kept' | 'sweeps' | 'sweepLooks' | 'calibrations' | 'place'>;

/** A trace of the library as it can be drawn; a problem where it cannot. */
export interface SeenTrace {
  curve: LibraryCurve | null;
  problem: string | null;
}

/** What a trace's samples are read from; null for one that is computed, or gone. */
export function leafKey({ kept, sweeps, place }: Shelf, id: string): string | null {
  const trace = keptById(kept).get(id);
  if (trace) return trace.arrayId;
  const reference = referenceOf(place, id);
  if (reference) return `reference ${JSON.stringify('source' in reference.model ? reference.model : id)}`;
  const sweep = sweeps.find((s) => s.id === id);
  return sweep ? `sweep ${sweep.traceId} ${sweep.calibrationId}` : null;
}

/** Reads the samples of a trace that has some. @throws Error when they are lost */
export async function readLeaf(shelf: Shelf, id: string): Promise<LibraryCurve> {
  const trace = keptById(shelf.kept).get(id);
  if (trace) {
    const array = await repository().array(trace.arrayId!);
    if (!array) throw new Error(`${trace.name} has lost its samples.`);
    return { ...unpackCurve(array), hasPhase: trace.origin.by !== 'file' || trace.origin.hasPhase };
  }
  const reference = referenceOf(shelf.place, id);
  if (reference) return runJob('coverage.inTheOpen', reference.model);
  const sweep = shelf.sweeps.find((s) => s.id === id)!;
  return runJob('views.libraryCurve', {
    arrayId: sweep.floor?.joinedId ?? sweep.traceId,
    calibration: (sweep.calibrationId && shelf.calibrations[sweep.calibrationId]) || null,
  });
}

/** Ids of everything with samples that some traces rest on, themselves among them. */
export function leavesOf(shelf: Shelf, ids: readonly string[]): string[] {
  const found = new Set<string>();
  const seen = new Set<string>();
  const open = [...ids];
  while (open.length > 0) {
    const id = open.pop()!;
    if (seen.has(id)) continue;
    seen.add(id);
    if (leafKey(shelf, id) !== null) found.add(id);
    const trace = keptById(shelf.kept).get(id);
    if (trace) open.push(...restsOn(trace));
  }
  return [...found];
}

/**
 * Everything that a trace's curve depends on, as a text: the same text, the same curve. Null for one that is gone, or rests on one
 * that is, or on itself.
 */
export function contentKey(shelf: Shelf, id: string): string | null {
  const source = sourceKey(shelf, id);
  const look = lookOf(shelf, id);
  if (source === null || !look) return source;
  const { gainDb, delayS, inverted, shapes, window, calibrationId } = look;
  return short(JSON.stringify([source, gainDb, delayS, inverted, shapes, window, calibrationId]));
}

/** The same of what a trace is made from, before it is looked at. */
function sourceKey(shelf: Shelf, id: string): string | null {
  const trace = keptById(shelf.kept).get(id);
  if (!trace) return leafKey(shelf, id);
  if (trace.origin.by !== 'computed') return trace.arrayId;
  if (isCircular(shelf.kept, trace.id)) return null;
  const of = trace.origin.formula.of.map((source) => contentKey(shelf, source));
  return of.includes(null) ? null : short(JSON.stringify([{ ...trace.origin.formula, of }]));
}

/** A number for each text, so that keys of traces over traces over traces do not grow. */
const numbers = new Map<string, string>();
function short(text: string): string {
  const known = numbers.get(text);
  if (known) return known;
  const next = `#${numbers.size}`;
  numbers.set(text, next);
  return next;
}

/** Works something out, now or later. @returns null while it is not there yet */
export type Worker = (key: string, work: LongWork) => SeenTrace | null;
const atOnce: Worker = (_key, work) => ({ curve: workOut(work), problem: null });
const NOT_YET: SeenTrace = { curve: null, problem: null };
const LONG = ['minimum phase', 'excess phase'] as const;
const isLong = (op: Formula['op']): op is (typeof LONG)[number] =>
  (LONG as readonly Formula['op'][]).includes(op);

/**
 * A trace as it is seen: computed from what it rests on as that is seen; its own window, microphone, gain, delay, polarity and shapes
 * on top.
 * @param curveOf samples by id; null while they are not read yet, or gone
 * @param worker of what takes long; at once when absent
 */
export function seenTrace(
  shelf: Shelf,
  id: string,
  curveOf: (id: string) => LibraryCurve | null,
  worker: Worker = atOnce,
): SeenTrace {
  const trace = keptById(shelf.kept).get(id);
  if (trace?.origin.by !== 'computed') {
    if (isGone(shelf, id)) return { curve: null, problem: 'It is gone.' };
    const curve = curveOf(id);
    return curve ? looked(shelf, id, curve, worker) : NOT_YET;
  }
  const { origin } = trace;
  if (isCircular(shelf.kept, id)) return { curve: null, problem: 'It rests on itself.' };
  const sources: LibraryCurve[] = [];
  for (const source of origin.formula.of) {
    const { curve, problem } = seenTrace(shelf, source, curveOf, worker);
    if (problem)
      return {
        curve: null,
        problem: isGone(shelf, source) ? GONE : `What it rests on is broken: ${problem}`,
      };
    if (!curve) return NOT_YET;
    sources.push(curve);
  }
  try {
    const { op } = origin.formula;
    if (!isLong(op)) return looked(shelf, id, evaluateFormula(origin.formula, sources), worker);
    const worked = worker(`${op} ${sourceKey(shelf, id)}`, { op, curve: sources[0]! });
    return worked?.curve ? looked(shelf, id, worked.curve, worker) : (worked ?? NOT_YET);
  } catch (error) {
    return { curve: null, problem: problemOf(error) };
  }
}

/** A trace's own curve as it is looked at. */
function looked(shelf: Shelf, id: string, curve: LibraryCurve, worker: Worker): SeenTrace {
  const look = lookOf(shelf, id);
  if (!look) return { curve, problem: null };
  const { window, calibrationId } = look;
  const microphone = calibrationId === null ? null : shelf.calibrations[calibrationId];
  if (microphone === undefined)
    return { curve: null, problem: 'The microphone file that it is corrected by is gone.' };
  let seen = curve;
  if (window) {
    if (!curve.hasPhase)
      return { curve: null, problem: 'Without a phase it has no time to put a window on.' };
    const key = `window ${window.beforeS} ${window.afterS} ${sourceKey(shelf, id)}`;
    const worked = worker(key, { op: 'window', curve, window });
    if (!worked?.curve) return worked ?? NOT_YET;
    seen = worked.curve;
  }
  if (microphone) seen = withoutMicrophone(seen, microphone);
  return { curve: viewedCurve(seen, look), problem: null };
}

const GONE = 'A trace that it rests on is gone. Undo that, or compute it anew.';
const isGone = ({ kept, sweeps, place }: Shelf, id: string) =>
  !keptById(kept).has(id) && !sweeps.some((s) => s.id === id) && !referenceOf(place, id);

export function problemOf(error: unknown): string {
  const message = error instanceof Error ? error.message : String(error);
  if (/without a phase/.test(message))
    return 'One of its traces has no phase, so nothing complex can be computed from it.';
  if (/share no/.test(message)) return 'Its traces share no frequencies.';
  return message;
}

/** What a sweep of the walk is called in the library. */
export function sweepName({ place, rounds }: Pick<Project, 'place' | 'rounds'>, sweep: Sweep): string {
  const spot = place.spots.find((s) => s.id === sweep.spotId)?.name ?? 'a spot';
  const channel = place.loudspeakers.find((l) => l.id === sweep.loudspeakerId)?.name ?? 'a channel';
  const round = rounds.length > 1 ? `, ${rounds.find((r) => r.id === sweep.roundId)?.name ?? ''}` : '';
  return `${channel} at ${spot}${sweep.stage === 'as found' ? '' : `, ${sweep.stage}`}${round}`;
}

/** The name of a trace of the library, whatever it is; null for one that is gone. */
export function traceName(
  project: Pick<Project, 'kept' | 'sweeps' | 'place' | 'rounds'>,
  id: string,
): string | null {
  const kept = keptById(project.kept).get(id);
  const sweep = project.sweeps.find((s) => s.id === id);
  const reference = referenceOf(project.place, id);
  return (
    kept?.name ?? (sweep ? sweepName(project, sweep) : reference ? `${reference.name} in the open` : null)
  );
}
