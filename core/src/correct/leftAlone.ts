import { smoothLevels } from '../signal/index.js';
import type { CorrectionLimits, MagnitudeDesign } from './designMagnitude.js';
import type { SpotAverage } from './averageSpots.js';
import { spanWeight } from './span.js';

/** A stretch that the design did not bring to the target, and why. */
export interface LeftAlone {
  from: number;
  to: number;
  /** where it is deepest (or highest), Hz */
  at: number;
  /** as found against the target there, dB; below 0 for a dip */
  offDb: number;
  /** what the design does there, dB */
  gainDb: number;
  reason: 'moves' | 'too deep' | 'cut limit';
  /** standard deviation over the spots there, dB */
  spreadDb: number;
}

/** Less than this from the target is no fault; this much left undone is worth a word. */
const OFF_DB = 3;
const UNDONE_DB = 2;
/** Spots that differ by this much do not share a dip. */
const MOVES_DB = 3;

/**
 * Where the design stays away from the target within the span, and the reason: a dip that differs from spot to spot
 * (`moves`), one that every spot shares but that needs more than the boost limit (`too deep`), a peak above the cut
 * limit (`cut limit`). Strength below 1 is no reason: the design is judged at full strength. The soft ends of the span
 * are no fault either.
 * @param before the average smoothed by 1/6 octave, where it is known already
 * @returns in ascending frequency; judged on 1/6 octave, before and after
 */
export function leftAlone(
  frequency: Float64Array,
  { averageDb, spreadDb }: Pick<SpotAverage, 'averageDb' | 'spreadDb'>,
  targetDb: Float64Array,
  { gainDb }: Pick<MagnitudeDesign, 'gainDb'>,
  { span, strength, maxCutDb }: CorrectionLimits,
  before: Float64Array = smoothLevels(frequency, averageDb, 6),
): LeftAlone[] {
  if (strength === 0) return [];
  const after = smoothLevels(
    frequency,
    averageDb.map((level, i) => level + gainDb[i]! / strength),
    6,
  );
  const weight = spanWeight(frequency, span);
  const off = before.map((level, i) => level - targetDb[i]!);
  const left = after.map((level, i) => level - targetDb[i]!);
  const isLeft = (i: number) =>
    i < frequency.length &&
    weight[i]! > 0.5 &&
    Math.abs(off[i]!) > OFF_DB &&
    Math.abs(left[i]!) > UNDONE_DB &&
    Math.sign(off[i]!) === Math.sign(left[i]!);
  const out: LeftAlone[] = [];
  for (let from = 0; from < frequency.length; from++) {
    if (!isLeft(from)) continue;
    let end = from + 1;
    while (isLeft(end) && Math.sign(off[end]!) === Math.sign(off[from]!)) end++;
    let at = from;
    for (let i = from; i < end; i++) if (Math.abs(left[i]!) > Math.abs(left[at]!)) at = i;
    const reason = off[at]! < 0 ? (spreadDb[at]! > MOVES_DB ? 'moves' : 'too deep') : 'cut limit';
    // a peak that is not at the limit is the flank of one that is finer than the design resolves: no reason to tell
    if (reason !== 'cut limit' || gainDb[at]! / strength < 0.9 * -maxCutDb) {
      out.push({
        from: frequency[from]!,
        to: frequency[end - 1]!,
        at: frequency[at]!,
        offDb: off[at]!,
        gainDb: gainDb[at]!,
        reason,
        spreadDb: spreadDb[at]!,
      });
    }
    from = end - 1;
  }
  return out;
}
