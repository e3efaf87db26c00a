import { evaluateFormula, viewedCurve, type LibraryCurve } from '@pebble-hall/core/traces';
import { isCircular, restsOn, type KeptTrace, type Project, type Sweep } from '@pebble-hall/core/project';
import { repository } from '../store';
import { runJob } from './jobs';
import { unpackCurve } from './keepTrace';

export type Shelf = Pick<Project, 'kept' | 'sweeps' | 'calibrations'>;

/** A trace of the library as it can be drawn; a problem where it cannot. */
export interface SeenTrace {
  curve: LibraryCurve | null;
  problem: string | null;
}

/** What a trace's samples are read from; null for one that is computed, or gone. */
export function leafKey({ kept, sweeps }: Shelf, id: string): string | null {
  const trace = kept.find((k) => k.id === id);
  if (trace) return trace.arrayId;
  const sweep = sweeps.find((s) => s.id === id);
  return sweep ? `sweep ${sweep.traceId} ${sweep.calibrationId}` : null;
}

/** Reads the samples of a trace that has some. @throws Error when they are lost */
export async function readLeaf(shelf: Shelf, id: string): Promise<LibraryCurve> {
  const trace = shelf.kept.find((k) => k.id === id);
  if (trace) {
    const array = await repository().array(trace.arrayId!);
    if (!array) throw new Error(`${trace.name} has lost its samples.`);
    return { ...unpackCurve(array), hasPhase: trace.origin.by !== 'file' || trace.origin.hasPhase };
  }
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
    const trace = shelf.kept.find((k) => k.id === id);
    if (trace) open.push(...restsOn(trace));
  }
  return [...found];
}

/**
 * A trace as it is seen: computed from what it rests on as that is seen, its own gain, delay and polarity on top.
 * @param curveOf samples by id; null while they are not read yet, or gone
 */
export function seenTrace(shelf: Shelf, id: string, curveOf: (id: string) => LibraryCurve | null): SeenTrace {
  const trace = shelf.kept.find((k) => k.id === id);
  if (!trace) {
    const curve = curveOf(id);
    return { curve, problem: shelf.sweeps.some((s) => s.id === id) ? null : 'It is gone.' };
  }
  const { origin, view } = trace;
  if (origin.by !== 'computed') {
    const curve = curveOf(id);
    return { curve: curve && viewedCurve(curve, view), problem: null };
  }
  if (isCircular(shelf.kept, id)) return { curve: null, problem: 'It rests on itself.' };
  const sources: LibraryCurve[] = [];
  for (const source of origin.formula.of) {
    const { curve, problem } = seenTrace(shelf, source, curveOf);
    if (problem)
      return {
        curve: null,
        problem: isGone(shelf, source) ? GONE : `What it rests on is broken: ${problem}`,
      };
    if (!curve) return { curve: null, problem: null };
    sources.push(curve);
  }
  try {
    return { curve: viewedCurve(evaluateFormula(origin.formula, sources), view), problem: null };
  } catch (error) {
    return { curve: null, problem: problemOf(error) };
  }
}

const GONE = 'A trace that it rests on is gone. Undo that, or compute it anew.';
const isGone = ({ kept, sweeps }: Shelf, id: string) =>
  !kept.some((k) => k.id === id) && !sweeps.some((s) => s.id === id);

function problemOf(error: unknown): string {
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
  const kept: KeptTrace | undefined = project.kept.find((k) => k.id === id);
  const sweep = project.sweeps.find((s) => s.id === id);
  return kept?.name ?? (sweep ? sweepName(project, sweep) : null);
}
