import { addLevel, sectionBiquad, sectionsLevelDb, type Section } from '../path/index.js';
import { inSteps } from '../signal/index.js';
import type { SectionLimits } from './sectionLimits.js';
import { cosineOf, ROUNDS_WHILE_GROWING, SectionSearch, type FitStart } from './sectionSearch.js';
import type { Span } from './span.js';

export interface SectionFit {
  sections: Section[];
  /** RMS of what is left over the span, dB */
  errorDb: number;
  /** what all sections that were allowed would leave, where fewer do nearly as well; null where all are used */
  withAll: { count: number; errorDb: number } | null;
}

const ROUNDS_AT_THE_END = 60;
/** So often a section that does little is tried elsewhere. */
const SWAPS = 24;
/**
 * Begun in several ways, since a fit ends in the nearest hollow, not in the deepest; the later ways only where the one
 * before left much. A single section may go beyond the limits, where its neighbours take it back; what lies outside the
 * span counts less, but a section must not leave its span.
 */
const STARTS: FitStart[] = [
  { beyondDb: 3, outside: 0.3 },
  { beyondDb: 1, outside: 0.2 },
  { beyondDb: 6, outside: 0.2 },
];
const MUCH_DB = 1;
/** Fewer sections win where they leave no more than this on top, dB. */
const HARDLY_DB = 0.1;
/** More would be fitted to what nobody hears. */
export const MOST_FITTED = 24;
/** The search looks at every so many points of the grid; only the end looks at all. */
const COARSE = 3;

/**
 * Parametric sections whose sum follows a gain: one after the other where most is left, all of them refined together after
 * each by damped least squares (Levenberg 1944, Marquardt 1963) over log frequency, gain and log Q, then rounded to the
 * processor's steps.
 * @param frequency log grid, Hz
 * @param gainDb what shall be reached, dB; 0 outside the span
 * @throws RangeError for a count outside 1 to 24 or limits that leave nothing
 */
export function fitSections(
  frequency: Float64Array,
  gainDb: Float64Array,
  span: Span,
  limits: SectionLimits,
  rate: number,
): SectionFit {
  const { count, kinds, leastQ, mostQ } = limits;
  if (!(Number.isInteger(count) && count >= 1 && count <= MOST_FITTED))
    throw new RangeError(`fitSections: count must be 1 to ${MOST_FITTED}, got ${count}`);
  if (kinds.length === 0 || !(leastQ > 0 && mostQ >= leastQ))
    throw new RangeError('fitSections: kinds and Q limits leave nothing to use');
  let best: SectionFit | null = null;
  for (const start of STARTS) {
    if (best && best.errorDb <= MUCH_DB) break;
    const found = fitFrom(frequency, gainDb, span, limits, rate, start);
    if (!best || found.errorDb < best.errorDb) best = found;
  }
  return best!;
}

/** Grown, refined and swapped on a thinned grid, then refined on all of it and rounded. */
function fitFrom(
  frequency: Float64Array,
  gainDb: Float64Array,
  span: Span,
  limits: SectionLimits,
  rate: number,
  start: FitStart,
): SectionFit {
  const { count } = limits;
  const thinned = (values: Float64Array) => values.filter((_, i) => i % COARSE === 0);
  const fit = new SectionSearch(thinned(frequency), thinned(gainDb), span, limits, rate, start);
  while (fit.sections.length < count) {
    if (!fit.grow()) break;
    fit.refine(ROUNDS_WHILE_GROWING);
  }
  fit.refine(ROUNDS_WHILE_GROWING);
  for (let swap = 0; swap < SWAPS && fit.swapWeakest(swap); swap++);
  const finished = (from: Section[]) => {
    const last = new SectionSearch(frequency, gainDb, span, limits, rate, start, from);
    last.refine(ROUNDS_AT_THE_END, 1e-5);
    const sections = heldWithin(
      last.sections.map((s) => rounded(s, limits)),
      frequency,
      limits,
      rate,
    )
      .filter((s) => s.gainDb !== 0)
      .sort((a, b) => a.frequency - b.frequency);
    return { sections, errorDb: sectionsErrorDb(frequency, gainDb, span, sections, rate) };
  };
  const all = finished(fit.sections);
  const thin = thinned(frequency);
  const roughDb = (sections: Section[]) => sectionsErrorDb(thin, thinned(gainDb), span, sections, rate);
  const most = roughDb(fit.sections) + HARDLY_DB;
  const fewer: Section[][] = [];
  while (fit.sections.length > 1) {
    fit.dropWeakest();
    if (roughDb(fit.sections) > most) break;
    fewer.push(fit.sections);
  }
  let best = all;
  for (const sections of fewer.reverse()) {
    const tried = finished(sections);
    if (tried.errorDb > all.errorDb + HARDLY_DB) continue;
    best = tried;
    break;
  }
  const isFewer = best.sections.length < all.sections.length;
  return { ...best, withAll: isFewer ? { count: all.sections.length, errorDb: all.errorDb } : null };
}

/** RMS over the span of what sections leave of a gain, dB. */
export function sectionsErrorDb(
  frequency: Float64Array,
  gainDb: Float64Array,
  { from, to }: Span,
  sections: Section[],
  rate: number,
): number {
  const left = gainDb.slice();
  const cosine = cosineOf(frequency, rate);
  for (const s of sections) addLevel(sectionBiquad(s, rate), cosine, left, -1);
  const inside = [...left].filter((_, i) => frequency[i]! >= from && frequency[i]! <= to);
  return Math.sqrt(inside.reduce((sum, v) => sum + v * v, 0) / inside.length);
}

/** Sections lowered step by step where their sum would go beyond a limit of boost or cut: a limit is a limit. */
function heldWithin(
  sections: Section[],
  frequency: Float64Array,
  { maxBoostDb, maxCutDb, gainStepDb, room }: SectionLimits,
  rate: number,
): Section[] {
  let held = sections;
  for (let step = 0; step < 1000; step++) {
    const sum = sectionsLevelDb(held, rate, frequency);
    const beyond = (i: number) =>
      Math.max(sum[i]! - (room?.boostDb[i] ?? maxBoostDb), -(room?.cutDb[i] ?? maxCutDb) - sum[i]!);
    let top = 0;
    for (let i = 1; i < sum.length; i++) if (beyond(i) > beyond(top)) top = i;
    if (!(beyond(top) > 0)) break;
    // the section that does most of it gives way
    const sign = Math.sign(sum[top]!);
    const share = held.map((s) => sign * sectionsLevelDb([s], rate, Float64Array.of(frequency[top]!))[0]!);
    const most = share.indexOf(Math.max(...share));
    held = held.map((s, i) =>
      i === most ? { ...s, gainDb: Number((s.gainDb - sign * gainStepDb).toFixed(6)) } : s,
    );
  }
  return held;
}

function rounded(s: Section, { gainStepDb, frequencyStepHz, qStep, leastQ, mostQ }: SectionLimits): Section {
  return {
    kind: s.kind,
    frequency: Math.max(frequencyStepHz, inSteps(s.frequency, frequencyStepHz)),
    gainDb: inSteps(s.gainDb, gainStepDb),
    q: Math.min(mostQ, Math.max(leastQ, inSteps(s.q, qStep))),
  };
}
