import { dbOfGain, dbOfPower, gainOfDb, interpolateLog, powerOfDb, smoothPower } from '../signal/index.js';
import { spanWeight, type Span } from './span.js';

/** Share of the correction that acts at a frequency, 0 to 1. */
export interface StrengthPoint {
  frequency: number;
  share: number;
}

/** How a correction may act. */
export interface CorrectionLimits {
  span: Span;
  /** 0 to 1, share of the correction in dB */
  strength: number;
  /** on top of it, against frequency: linear over log frequency, flat beyond the ends; everywhere whole when empty */
  strengthPoints?: StrengthPoint[];
  /** at least 0 */
  maxBoostDb: number;
  maxCutDb: number;
  /** what else acts on the same outputs, dB: the limits hold for the sum; the most and the least of it over the outputs */
  besides?: { highDb: Float64Array; lowDb: Float64Array } | null;
}

/** What may still be boosted and cut at a point of the grid, dB, both at least 0. */
export const roomAt = (
  { maxBoostDb, maxCutDb, besides }: Pick<CorrectionLimits, 'maxBoostDb' | 'maxCutDb' | 'besides'>,
  i: number,
): { boostDb: number; cutDb: number } => ({
  boostDb: Math.max(0, maxBoostDb - Math.max(0, besides?.highDb[i] ?? 0)),
  cutDb: Math.max(0, maxCutDb + Math.min(0, besides?.lowDb[i] ?? 0)),
});

export interface MagnitudeDesign {
  /** gain of the correction at each frequency, dB; 0 outside the span */
  gainDb: Float64Array;
  /** the same at full strength, dB */
  fullDb: Float64Array;
  /** what would lead exactly to the target, dB */
  wantedDb: Float64Array;
  /** strength at each frequency, 0 to 1 */
  strengthAt: Float64Array;
}

/** What is known of the spots, at each frequency. */
export interface SpotTraits {
  /** standard deviation over the spots, dB */
  standardDeviationDb: Float64Array;
  /** share of spots that are not of minimum phase there, 0 to 1; nowhere when absent */
  nonMinimumPhase?: Float64Array;
}

/** Spots that differ by this standard deviation get half the boost, or half the cut. */
const HALF_BOOST_DB = 8;
const HALF_CUT_DB = 12;

/**
 * Correction of an average towards a target. Peaks are brought down to it, as far as the cut limit allows. Dips follow
 * the regularised inverse of Kirkeby and Nelson (1999), G = (1 + b) H / (H^2 + b) with H the average over the target:
 * exact at H = 1, never above (1 + b) / (2 sqrt b), and falling back to nothing in deep dips; b comes from the boost
 * limit, and grows with the spread between the spots, so that what only some seats lack is left alone; what only some
 * seats have too much of is cut less, because the power average is theirs more than the others'. Where spots are not of
 * minimum phase, a boost gets as much less as their share: it would lengthen the sound without filling the dip.
 * @param frequency log grid, Hz
 * @param averageDb power average over spots; smoothed here: 1/12 octave in the deep lows, 1/24 in the lows, 1/3 in the highs
 * @param targetDb placed at its level
 * @param smoothDb the average as `smoothForDesign` has it, where it is known already: it does not change under a hand
 * @throws RangeError when a limit is outside its range
 */
export function designMagnitude(
  frequency: Float64Array,
  averageDb: Float64Array,
  { standardDeviationDb, nonMinimumPhase }: SpotTraits,
  targetDb: Float64Array,
  limits: CorrectionLimits,
  smoothDb: Float64Array = smoothForDesign(frequency, averageDb),
): MagnitudeDesign {
  const { span, strength, strengthPoints = [], maxBoostDb, maxCutDb } = limits;
  for (const s of [strength, ...strengthPoints.map((p) => p.share)]) {
    if (!(s >= 0 && s <= 1)) throw new RangeError(`designMagnitude: strength must be 0 to 1, got ${s}`);
  }
  if (!(maxBoostDb >= 0 && maxCutDb >= 0)) {
    throw new RangeError(`designMagnitude: limits must be at least 0 dB, got ${maxBoostDb} and ${maxCutDb}`);
  }
  const weight = spanWeight(frequency, span);
  const strengthAt = strengthOver(frequency, strength, strengthPoints);
  const wantedDb = targetDb.map((target, i) => target - smoothDb[i]!);
  const fullDb = wantedDb.map((wanted, i) => {
    if (weight[i] === 0 || !Number.isFinite(wanted)) return 0;
    const { boostDb, cutDb } = roomAt(limits, i);
    const trust = (half: number) => 1 / (1 + (standardDeviationDb[i]! / half) ** 2);
    const full =
      wanted <= 0
        ? trust(HALF_CUT_DB) * Math.max(wanted, -cutDb)
        : dbOfGain(
            regularised(
              gainOfDb(-wanted),
              (1 - (nonMinimumPhase?.[i] ?? 0)) * trust(HALF_BOOST_DB) * boostDb,
            ),
          );
    return weight[i]! * full;
  });
  return { gainDb: fullDb.map((g, i) => strengthAt[i]! * g), fullDb, wantedDb, strengthAt };
}

/** Strength at each frequency. */
function strengthOver(frequency: Float64Array, strength: number, points: StrengthPoint[]): Float64Array {
  if (points.length === 0) return frequency.map(() => strength);
  const sorted = [...points].sort((a, b) => a.frequency - b.frequency);
  const share = interpolateLog(
    Float64Array.from(sorted, (p) => p.frequency),
    Float64Array.from(sorted, (p) => p.share),
    frequency,
  );
  return share.map((s) => strength * s);
}

/** Gain for a response `h` below 1 when at most `boostDb` may be given. */
function regularised(h: number, boostDb: number): number {
  const most = gainOfDb(boostDb);
  const root = most - Math.sqrt(most * most - 1); // solves (1 + b) / (2 sqrt b) = most
  const b = root * root;
  return Math.max(1, ((1 + b) * h) / (h * h + b)); // a dip is never made deeper
}

/** Below, 1/12 octave is what a filter of 8192 taps can tell apart (6 Hz); from twice that on it is 1/24. */
const RESOLVED_HZ = 100;
/** Where smoothing changes over from fine to coarse: fine in the range of single room modes, coarse where they overlap. */
const FINE_BELOW = 200;
const COARSE_ABOVE = 1200;

/** The average as a design inverts it. */
export function smoothForDesign(frequency: Float64Array, levels: Float64Array): Float64Array {
  const power = levels.map(powerOfDb);
  const [deep, fine, coarse] = [12, 24, 3].map((fraction) => smoothPower(frequency, power, fraction));
  return frequency.map((f, i) => {
    const toFine = shareOfWay(f, RESOLVED_HZ, 2 * RESOLVED_HZ);
    const toCoarse = shareOfWay(f, FINE_BELOW, COARSE_ABOVE);
    const low = deep![i]! ** (1 - toFine) * fine![i]! ** toFine;
    return dbOfPower(low ** (1 - toCoarse) * coarse![i]! ** toCoarse);
  });
}

/** How far `f` is on its way between two frequencies, on a log axis, 0 to 1. */
const shareOfWay = (f: number, from: number, to: number): number =>
  Math.min(1, Math.max(0, Math.log(f / from) / Math.log(to / from)));
