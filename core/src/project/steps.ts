import {
  STARTING_SUB_LIMITS,
  type CrossoverSetting,
  type LevelAndDelay,
  type SubLimits,
} from '../alignment/index.js';
import type { SubSetting } from '../processing/index.js';
import { inSteps } from '../signal/index.js';
import { STEPS, type Alignment, type Correction, type Step } from './correction.js';
import {
  fittedOf,
  measuredKey,
  noneAsNothing,
  shortHash,
  targetsInVersion6,
  type Measured,
} from './progress.js';

type Suggested = Pick<LevelAndDelay, 'id' | 'trimDb' | 'delayS'>;

const PLAIN: Alignment = { trimDb: 0, delayMs: 0, inverted: false };

/** The part of a correction that its filters depend on: levels, delays and crossovers do not change them. */
export const filterPart = (correction: Correction): Correction => ({
  ...correction,
  alignment: {},
  crossovers: {},
  allPasses: {},
  lowChannel: null,
  headroomGuard: 'off',
  madeFrom: { subs: null, levels: null, crossover: null },
});

/** What each step would rest on if it were taken now. */
function stepKeys(project: Measured, correction: Correction): Record<Step, string> {
  const measured = measuredKey(project);
  const of = (...parts: unknown[]) => shortHash(`${measured} ${inOrder(parts)}`);
  // as version 7 wrote it, so that steps of then still hold
  const filters = {
    ...filterPart(correction),
    ...targetsInVersion6(correction),
    headroomGuard: false,
    allPasses: undefined,
  };
  const limits = subLimits(correction);
  const turns = noneAsNothing(correction.allPasses) ? [correction.allPasses] : [];
  return {
    subs: limits === STARTING_SUB_LIMITS ? of() : of(limits),
    levels: of(filters),
    crossover: of(filters, correction.crossovers, subsAgainstMains(project, correction), ...turns),
  };
}

/** What evening out the seats may do: no more than the correction allows in all. */
export function subLimits({ maxBoostDb, maxCutDb }: Pick<Correction, 'maxBoostDb' | 'maxCutDb'>): SubLimits {
  const usual = STARTING_SUB_LIMITS;
  if (maxBoostDb >= usual.maxBoostDb && maxCutDb >= usual.maxCutDb) return usual;
  return {
    ...usual,
    maxBoostDb: Math.min(usual.maxBoostDb, maxBoostDb),
    maxCutDb: Math.min(usual.maxCutDb, maxCutDb),
  };
}

/** How subwoofers stand to the channels that are crossed over to them: their delays against the mean of those, and polarity. */
function subsAgainstMains(project: Measured, { alignment, crossovers }: Correction): unknown {
  const fitted = fittedOf(project);
  const mains = fitted.filter((l) => l.role !== 'subwoofer' && crossovers[l.id] !== undefined);
  const of = (id: string) => alignment[id] ?? PLAIN;
  const mean = mains.reduce((sum, l) => sum + of(l.id).delayMs, 0) / Math.max(1, mains.length);
  const relation = fitted
    .filter((l) => l.role === 'subwoofer')
    .map((l) => [l.id, (of(l.id).delayMs - mean).toFixed(2), of(l.id).inverted]);
  return [relation, mains.map((l) => of(l.id).inverted)];
}

/** The steps that rest on something that has changed since they were taken, in the order in which to take them again. */
export function staleSteps(project: Measured, correction: Correction): Step[] {
  const now = stepKeys(project, correction);
  return STEPS.filter((step) => {
    const taken = correction.madeFrom[step];
    return taken !== null && taken !== now[step];
  });
}

/** Subwoofers evened out over the seats: they have one trim, delay and polarity from then on, the mean of what they had. */
export const takeEvenSeats = (
  project: Measured,
  correction: Correction,
  subs: Record<string, SubSetting>,
): Correction => noted(project, shareAlignment(correction, { ...correction, subs }), 'subs');

/**
 * Trims and delays of all channels as suggested from the home spot, in steps of 0.1 dB and 0.01 ms. A crossover that was
 * aligned decides how the subwoofers stand to the channels: that stays as it is, and so does polarity.
 */
export function suggestedAlignment(
  project: Measured,
  correction: Correction,
  suggested: Suggested[],
): Record<string, Alignment> {
  const { alignment, crossovers } = correction;
  const next: Record<string, Alignment> = { ...alignment };
  for (const { id, trimDb, delayS } of suggested)
    next[id] = { trimDb, delayMs: 1000 * delayS, inverted: alignment[id]?.inverted ?? false };
  if (isCrossed(project, correction)) {
    const crossed = fittedOf(project).filter((l) => l.role !== 'subwoofer' && crossovers[l.id]);
    const mean = (of: typeof alignment) =>
      crossed.reduce((sum, l) => sum + (of[l.id]?.delayMs ?? 0), 0) / crossed.length;
    const later = mean(next) - mean(alignment);
    for (const { id, role } of fittedOf(project))
      if (role === 'subwoofer')
        next[id] = { ...(next[id] ?? PLAIN), delayMs: (alignment[id]?.delayMs ?? 0) + later };
  }
  return inDeviceSteps(next);
}

/** Levels and delays of all channels as suggested. */
export function takeLevels(project: Measured, correction: Correction, suggested: Suggested[]): Correction {
  const next = { ...correction, alignment: suggestedAlignment(project, correction, suggested) };
  const isStale = staleSteps(project, correction).includes('crossover');
  // a crossover that held still holds: how the subwoofers stand to the channels was kept, but for rounding
  const kept = isCrossed(project, correction) && !isStale ? noted(project, next, 'crossover') : next;
  return noted(project, shareAlignment(correction, kept), 'levels');
}

/** Whether a crossover was aligned, so that the subwoofers' delay and polarity are decided. */
export const isCrossed = (project: Measured, { crossovers, madeFrom }: Correction): boolean =>
  madeFrom.crossover !== null &&
  fittedOf(project).some((l) => l.role !== 'subwoofer' && crossovers[l.id] !== undefined);

/**
 * Channels and subwoofers with the crossover between them as found: a delay that would have to be negative is given to all
 * full-range channels instead, inverted polarity is the subwoofers'.
 * @param crossed the channels that get the crossover; none where only delay and polarity were looked for
 */
export function takeCrossover(
  project: Measured,
  correction: Correction,
  { subDelayS, subInverted, highPass, lowPass }: CrossoverSetting,
  crossed: string[],
): Correction {
  const alignment = { ...correction.alignment };
  for (const { id, role } of fittedOf(project)) {
    const was = alignment[id] ?? PLAIN;
    const isSub = role === 'subwoofer';
    const laterMs = isSub === subDelayS >= 0 ? 1000 * Math.abs(subDelayS) : 0;
    if (laterMs === 0 && !(isSub && subInverted)) continue;
    alignment[id] = {
      ...was,
      delayMs: was.delayMs + laterMs,
      inverted: isSub && subInverted ? !was.inverted : was.inverted,
    };
  }
  const own = Object.fromEntries(crossed.map((id) => [id, { highPass, lowPass }]));
  const next = {
    ...correction,
    alignment: inDeviceSteps(alignment),
    crossovers: { ...correction.crossovers, ...own },
  };
  return noted(project, next, 'crossover');
}

/** The correction with what a step rests on noted, after it was taken. */
const noted = (project: Measured, correction: Correction, step: Step): Correction => ({
  ...correction,
  madeFrom: { ...correction.madeFrom, [step]: stepKeys(project, correction)[step] },
});

/**
 * Subwoofers that play together share one trim, delay and polarity, or they would not play as they were evened out: what one
 * of them was given by `after`, all have; where they differ already, all get the mean.
 */
export function shareAlignment(before: Correction, after: Correction): Correction {
  const ids = Object.keys(after.subs);
  const of = (id: string) => after.alignment[id] ?? PLAIN;
  const [first] = ids;
  if (first === undefined || ids.length < 2 || ids.every((id) => isSame(of(id), of(first)))) return after;
  const changed = ids.filter((id) => !isSame(of(id), before.alignment[id] ?? PLAIN));
  const mean = (key: 'trimDb' | 'delayMs') => ids.reduce((sum, id) => sum + of(id)[key], 0) / ids.length;
  const shared: Alignment =
    changed.length === 1
      ? of(changed[0]!)
      : {
          trimDb: inSteps(mean('trimDb'), 0.1),
          delayMs: inSteps(mean('delayMs'), 0.01),
          inverted: of(first).inverted,
        };
  return {
    ...after,
    alignment: { ...after.alignment, ...Object.fromEntries(ids.map((id) => [id, shared])) },
  };
}

const isSame = (a: Alignment, b: Alignment): boolean =>
  a.trimDb === b.trimDb && a.delayMs === b.delayMs && a.inverted === b.inverted;

/** Trims in steps of 0.1 dB, delays of 0.01 ms, all later together where one would be negative. */
export function inDeviceSteps(alignment: Record<string, Alignment>): Record<string, Alignment> {
  const least = Math.min(0, ...Object.values(alignment).map((a) => a.delayMs));
  return Object.fromEntries(
    Object.entries(alignment).map(([id, a]) => [
      id,
      { ...a, trimDb: inSteps(a.trimDb, 0.1), delayMs: inSteps(a.delayMs - least, 0.01) },
    ]),
  );
}

/** JSON with the keys of every object in order, so that what is alike reads alike. */
const inOrder = (value: unknown): string =>
  JSON.stringify(value, (_, v: unknown) =>
    v && typeof v === 'object' && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  );
