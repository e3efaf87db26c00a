import { smoothLevels } from '../signal/index.js';
import { roomAt, type CorrectionLimits, type MagnitudeDesign, type SpotTraits } from './designMagnitude.js';
import { spanWeight } from './span.js';

/** Why a stretch was not brought to the target. */
export type LeftReason = 'moves' | 'not minimum phase' | 'too deep' | 'cut limit';

/** A stretch that the design did not bring to the target, and why. */
export interface LeftAlone {
  from: number;
  to: number;
  /** where it is deepest (or highest), Hz */
  at: number;
  /** as found against the target there, dB; below 0 for a dip */
  offDb: number;
  /** what the design does there, and what would lead exactly to the target, dB */
  gainDb: number;
  wantedDb: number;
  reason: LeftReason;
  /** standard deviation over the spots there, dB */
  standardDeviationDb: number;
  /** share of the spots that are not of minimum phase there, 0 to 1 */
  nonMinimumPhase: number;
}

/** Less than this from the target is no fault; this much left undone is worth a word. */
const OFF_DB = 3;
const UNDONE_DB = 2;
/** Where the design gives all but this of what it wants, nothing held it back: what is left is finer than it resolves. */
const HELD_DB = 1;
/** Spots that differ by this much do not share a dip. */
export const MOVES_DB = 3;
/** A dip that this share of the spots has as no minimum phase is one that a filter cannot fill. */
export const NON_MINIMUM_PHASE_SHARE = 0.5;

/**
 * Where the design stays away from the target within the span, and the reason: a dip that differs from spot to spot
 * (`moves`), one that most spots share but not as minimum phase (`not minimum phase`: two sounds cancel there, and both
 * would be raised), one that needs more than the boost limit (`too deep`), a peak above the cut limit (`cut limit`).
 * Strength below 1 is no reason: the design is judged at full strength. The soft ends of the span are no fault either.
 * @param before the average smoothed by 1/6 octave, where it is known already
 * @returns in ascending frequency; judged on 1/6 octave, before and after
 */
export function leftAlone(
  frequency: Float64Array,
  averageDb: Float64Array,
  { standardDeviationDb, nonMinimumPhase }: SpotTraits,
  targetDb: Float64Array,
  { gainDb, fullDb, wantedDb }: Pick<MagnitudeDesign, 'gainDb' | 'fullDb' | 'wantedDb'>,
  limits: CorrectionLimits,
  before: Float64Array = smoothLevels(frequency, averageDb, 6),
): LeftAlone[] {
  const { span, strength } = limits;
  if (strength === 0) return [];
  const after = smoothLevels(
    frequency,
    averageDb.map((level, i) => level + fullDb[i]!),
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
    const reason =
      off[at]! < 0 ? dipReason(standardDeviationDb[at]!, nonMinimumPhase?.[at] ?? 0) : 'cut limit';
    // what nothing held back is the flank of something finer than the design resolves: no reason to tell
    const held =
      reason === 'cut limit'
        ? fullDb[at]! <= 0.9 * -roomAt(limits, at).cutDb
        : wantedDb[at]! - fullDb[at]! > HELD_DB;
    if (held) {
      out.push({
        from: frequency[from]!,
        to: frequency[end - 1]!,
        at: frequency[at]!,
        offDb: off[at]!,
        gainDb: gainDb[at]!,
        wantedDb: wantedDb[at]!,
        reason,
        standardDeviationDb: standardDeviationDb[at]!,
        nonMinimumPhase: nonMinimumPhase?.[at] ?? 0,
      });
    }
    from = end - 1;
  }
  return out;
}

const dipReason = (standardDeviationDb: number, nonMinimumPhase: number): LeftReason =>
  standardDeviationDb > MOVES_DB
    ? 'moves'
    : nonMinimumPhase >= NON_MINIMUM_PHASE_SHARE
      ? 'not minimum phase'
      : 'too deep';
