import { dbOfGain, dbOfPower, gainOfDb, powerOfDb, smoothPower } from '../signal/index.js';
import { spanWeight, type Span } from './span.js';

/** How a correction may act. */
export interface CorrectionLimits {
  span: Span;
  /** 0 to 1, share of the correction in dB */
  strength: number;
  /** at least 0 */
  maxBoostDb: number;
  maxCutDb: number;
}

export interface MagnitudeDesign {
  /** gain of the correction at each frequency, dB; 0 outside the span */
  gainDb: Float64Array;
  /** what would lead exactly to the target, dB */
  wantedDb: Float64Array;
}

/** Spots that differ by this standard deviation get half the boost. */
const HALF_TRUST_DB = 8;

/**
 * Correction of an average towards a target. Peaks are brought down to it, as far as the cut limit allows. Dips follow
 * the regularised inverse of Kirkeby and Nelson (1999), G = (1 + b) H / (H^2 + b) with H the average over the target:
 * exact at H = 1, never above (1 + b) / (2 sqrt b), and falling back to nothing in deep dips; b comes from the boost
 * limit, and grows with the spread between the spots, so that what only some seats lack is left alone.
 * @param frequency log grid, Hz
 * @param averageDb power average over spots; smoothed here: 1/12 octave in the lows, 1/3 in the highs
 * @param spreadDb standard deviation over the spots
 * @param targetDb placed at its level
 * @throws RangeError when a limit is outside its range
 */
export function designMagnitude(
  frequency: Float64Array,
  averageDb: Float64Array,
  spreadDb: Float64Array,
  targetDb: Float64Array,
  { span, strength, maxBoostDb, maxCutDb }: CorrectionLimits,
): MagnitudeDesign {
  if (!(strength >= 0 && strength <= 1))
    throw new RangeError(`designMagnitude: strength must be 0 to 1, got ${strength}`);
  if (!(maxBoostDb >= 0 && maxCutDb >= 0)) {
    throw new RangeError(`designMagnitude: limits must be at least 0 dB, got ${maxBoostDb} and ${maxCutDb}`);
  }
  const smooth = smoothForDesign(frequency, averageDb);
  const weight = spanWeight(frequency, span);
  const wantedDb = targetDb.map((target, i) => target - smooth[i]!);
  const gainDb = wantedDb.map((wanted, i) => {
    if (weight[i] === 0 || !Number.isFinite(wanted)) return 0;
    const trust = 1 / (1 + (spreadDb[i]! / HALF_TRUST_DB) ** 2);
    const full =
      wanted <= 0
        ? Math.max(wanted, -maxCutDb)
        : dbOfGain(regularised(gainOfDb(-wanted), trust * maxBoostDb));
    return strength * weight[i]! * full;
  });
  return { gainDb, wantedDb };
}

/** Gain for a response `h` below 1 when at most `boostDb` may be given. */
function regularised(h: number, boostDb: number): number {
  const most = gainOfDb(boostDb);
  const root = most - Math.sqrt(most * most - 1); // solves (1 + b) / (2 sqrt b) = most
  const b = root * root;
  return Math.max(1, ((1 + b) * h) / (h * h + b)); // a dip is never made deeper
}

/** Where smoothing changes over from fine to coarse: fine in the range of single room modes, coarse where they overlap. */
const FINE_BELOW = 200;
const COARSE_ABOVE = 1200;

function smoothForDesign(frequency: Float64Array, levels: Float64Array): Float64Array {
  const power = levels.map(powerOfDb);
  const fine = smoothPower(frequency, power, 12);
  const coarse = smoothPower(frequency, power, 3);
  return frequency.map((f, i) => {
    const t = Math.min(1, Math.max(0, Math.log(f / FINE_BELOW) / Math.log(COARSE_ABOVE / FINE_BELOW)));
    return dbOfPower(fine[i]! ** (1 - t) * coarse[i]! ** t);
  });
}
