import {
  alignmentAt,
  findAlignments,
  isWide,
  sharedBandOf,
  type AlignAim,
  type Alignment,
} from './findAlignment.js';
import type { AlignPoint } from './phaseTables.js';

/** Why a way to bring two sources together is offered. */
export type SuggestedFor = 'most' | 'most even' | 'least delay';

/** A way to bring a source to another one, and what it is worth. */
export interface Suggestion extends Alignment {
  /** in what it is the best of those that were found, with its number of all-pass sections */
  for: SuggestedFor;
  /**
   * what is lost of the sum, dB, when one of them comes half a metre nearer, or the air is 5 K warmer: on the way that the delay makes
   * up for
   */
  halfMetreDb: number;
  warmerDb: number;
}

export interface SuggestRequest {
  points: readonly AlignPoint[];
  mostDelayS: number;
  mostAllPasses: number;
  /** what the best is the best in */
  aim: AlignAim;
  /** m/s */
  speedOfSound: number;
}

/** Suggestions that are this near, dB of the sum, are alike: less to do comes first then. */
const ALIKE_DB = 0.1;
/** So much of the sum may be given away for less delay, dB. */
const GIVEN_AWAY_DB = 0.5;
/** Shorter delays are not sought below this share of the best one's. */
const LEAST_SHARE = 1 / 32;
const HALF_METRE = 0.5;
/** The speed of sound goes with the root of the absolute temperature: for 5 K at 20 degrees C. */
const WARMER = Math.sqrt((293.15 + 5) / 293.15) - 1;
/** Two with less between them are the same, seconds. */
const SAME_S = 2e-5;

const decibels = (one: number, other: number) => 20 * Math.log10(one / other);

/**
 * Ways to bring a source to another one, the best first; those within 0.1 dB of each other by fewer sections, then by less delay.
 * @returns nothing where the two share nothing
 */
export function suggestAlignments(request: SuggestRequest): Suggestion[] {
  const { points, mostDelayS, mostAllPasses, aim } = request;
  const asked = { points, mostDelayS, mostAllPasses };
  const most = findAlignments({ ...asked, aim: 'mean' });
  if (most.length === 0) return [];
  const found: [SuggestedFor, Alignment][] = most.map((a) => ['most', a]);
  // where only time counts, less of it is worth nothing
  const nearer = isWide(sharedBandOf(points)!) ? null : lessDelay(request, most[0]!);
  if (nearer) found.push(['least delay', nearer]);
  if (points.length > 1)
    found.push(
      ...findAlignments({ ...asked, aim: 'worst' }).map((a): [SuggestedFor, Alignment] => ['most even', a]),
    );
  const different: [SuggestedFor, Alignment][] = [];
  for (const [what, one] of found)
    if (!different.some(([, other]) => isSame(one, other))) different.push([what, one]);
  return ranked(
    different.map(([what, one]) => suggestion(what, one, request)),
    aim,
  );
}

/** The shortest delay that is nearly as good as the best with no sections; null where the best is the shortest. */
function lessDelay({ points, mostDelayS: _, ...request }: SuggestRequest, best: Alignment): Alignment | null {
  let shorter: Alignment | null = null;
  for (let share = 0.7; share > LEAST_SHARE; share *= 0.7) {
    const mostDelayS = share * Math.abs(best.delayS);
    if (mostDelayS < 1e-4) break;
    const [tried] = findAlignments({ ...request, points, mostDelayS, mostAllPasses: 0, aim: 'mean' });
    if (!tried || decibels(best.efficiency, tried.efficiency) > GIVEN_AWAY_DB) break;
    // its end is one that was set to find it
    shorter = { ...tried, atEdge: false };
  }
  return shorter;
}

function suggestion(
  what: SuggestedFor,
  one: Alignment,
  { points, speedOfSound }: SuggestRequest,
): Suggestion {
  const lost = (byS: number) =>
    Math.max(
      0,
      ...[-byS, byS].map((s) =>
        decibels(one.efficiency, alignmentAt(points, { ...one, delayS: one.delayS + s })!.efficiency),
      ),
    );
  return {
    ...one,
    for: what,
    halfMetreDb: lost(HALF_METRE / speedOfSound),
    warmerDb: lost(Math.abs(one.delayS) * WARMER),
  };
}

const isSame = (a: Alignment, b: Alignment): boolean =>
  a.inverted === b.inverted &&
  a.allPasses.length === b.allPasses.length &&
  Math.abs(a.delayS - b.delayS) < SAME_S &&
  a.allPasses.every((s, i) => s.hz === b.allPasses[i]!.hz && s.q === b.allPasses[i]!.q);

/** The best first; of those that are alike what is easier to do. */
function ranked(found: Suggestion[], aim: AlignAim): Suggestion[] {
  const of = (s: Suggestion) => (aim === 'mean' ? s.efficiency : s.worst);
  const left = found.sort((a, b) => of(b) - of(a));
  const out: Suggestion[] = [];
  while (left.length > 0) {
    const alike = left.filter((s) => decibels(of(left[0]!), of(s)) <= ALIKE_DB);
    left.splice(0, alike.length);
    out.push(
      ...alike.sort(
        (a, b) => a.allPasses.length - b.allPasses.length || Math.abs(a.delayS) - Math.abs(b.delayS),
      ),
    );
  }
  return out;
}
