import { smoothLevels } from '../signal/index.js';
import type { CorrectionLimits, MagnitudeDesign } from './designMagnitude.js';
import type { SpotAverage } from './averageSpots.js';

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
 * limit (`cut limit`). Strength below 1 is no reason: the design is judged at full strength.
 * @returns in ascending frequency; judged on 1/6 octave
 */
export function leftAlone(
  frequency: Float64Array,
  { averageDb, spreadDb }: Pick<SpotAverage, 'averageDb' | 'spreadDb'>,
  targetDb: Float64Array,
  { gainDb }: MagnitudeDesign,
  { span, strength }: CorrectionLimits,
): LeftAlone[] {
  if (strength === 0) return [];
  const smooth = smoothLevels(frequency, averageDb, 6);
  const out: LeftAlone[] = [];
  let from = -1;
  for (let i = 0; i <= frequency.length; i++) {
    const inside = i < frequency.length && frequency[i]! >= span.from && frequency[i]! <= span.to;
    const off = inside ? smooth[i]! - targetDb[i]! : 0;
    const undone = inside ? off + gainDb[i]! / strength : 0;
    const is = Math.abs(off) > OFF_DB && Math.abs(undone) > UNDONE_DB && Math.sign(off) === Math.sign(undone);
    if (is && from >= 0 && Math.sign(off) !== Math.sign(smooth[from]! - targetDb[from]!)) {
      out.push(stretch(from, i));
      from = i;
    } else if (is && from < 0) from = i;
    else if (!is && from >= 0) {
      out.push(stretch(from, i));
      from = -1;
    }
  }
  return out;

  function stretch(first: number, end: number): LeftAlone {
    let at = first;
    for (let i = first; i < end; i++) {
      if (Math.abs(smooth[i]! - targetDb[i]!) > Math.abs(smooth[at]! - targetDb[at]!)) at = i;
    }
    const offDb = smooth[at]! - targetDb[at]!;
    const reason = offDb > 0 ? 'cut limit' : spreadDb[at]! > MOVES_DB ? 'moves' : 'too deep';
    return {
      from: frequency[first]!,
      to: frequency[end - 1]!,
      at: frequency[at]!,
      offDb,
      gainDb: gainDb[at]!,
      reason,
      spreadDb: spreadDb[at]!,
    };
  }
}
