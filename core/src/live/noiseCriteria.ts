import { dbOfPower, powerOfDb } from '../signal/index.js';

/** A rating by the band that decides. */
export interface NoiseRating {
  rating: number;
  /** middle of the octave that is nearest to, or over, its curve, Hz */
  decidingHz: number;
}

/** Octaves of the curves, Hz. */
export const RATED_OCTAVES = [31.5, 63, 125, 250, 500, 1000, 2000, 4000, 8000] as const;

/** L = a + b NR (ISO/R 1996:1971), by octave from 31.5 Hz. */
const NR = [
  [55.4, 0.681],
  [35.5, 0.79],
  [22, 0.87],
  [12, 0.93],
  [4.8, 0.974],
  [0, 1],
  [-3.5, 1.015],
  [-6.1, 1.025],
  [-8, 1.03],
] as const;

/** Curves of ANSI/ASA S12.2 from 63 Hz to 8 kHz, dB, by their numbers. */
const NC: Record<number, readonly number[]> = {
  15: [47, 36, 29, 22, 17, 14, 12, 11],
  20: [51, 40, 33, 26, 22, 19, 17, 16],
  25: [54, 44, 37, 31, 27, 24, 22, 21],
  30: [57, 48, 41, 35, 31, 29, 28, 27],
  35: [60, 52, 45, 40, 36, 34, 33, 32],
  40: [64, 56, 50, 45, 41, 39, 38, 37],
  45: [67, 60, 54, 49, 46, 44, 43, 42],
  50: [71, 64, 58, 54, 51, 49, 48, 47],
  55: [74, 67, 62, 58, 56, 54, 53, 52],
  60: [77, 71, 67, 63, 61, 59, 58, 57],
  65: [80, 75, 71, 68, 66, 64, 63, 62],
};
const NC_NUMBERS = Object.keys(NC).map(Number);

/**
 * Noise rating NR of octave levels: the highest curve that one of them touches.
 * @param levelDb sound pressure level in each of `RATED_OCTAVES`; NaN is left out
 * @returns null where no level is known
 */
export function noiseRating(levelDb: readonly number[]): NoiseRating | null {
  return highest(levelDb.map((v, i) => (v - NR[i]![0]) / NR[i]![1]));
}

/**
 * Noise criterion NC of octave levels by the tangent method, between curves by interpolation.
 * @param levelDb as for `noiseRating`; 31.5 Hz has no curve
 * @returns null where no level is known, or one lies over NC-65, where there is no curve; 15 and less is given as 15
 */
export function noiseCriterion(levelDb: readonly number[]): NoiseRating | null {
  const numbers = levelDb.slice(1).map((v, i) => {
    if (Number.isNaN(v)) return NaN;
    const upper = NC_NUMBERS.find((n) => NC[n]![i]! >= v);
    if (upper === undefined) return Infinity;
    if (upper === NC_NUMBERS[0]) return upper;
    const [low, high] = [NC[upper - 5]![i]!, NC[upper]![i]!];
    return upper - 5 + (5 * (v - low)) / (high - low);
  });
  const found = highest([NaN, ...numbers]);
  return found && Number.isFinite(found.rating) ? found : null;
}

function highest(numbers: readonly number[]): NoiseRating | null {
  let best = -1;
  numbers.forEach((v, i) => {
    if (!Number.isNaN(v) && (best < 0 || v > numbers[best]!)) best = i;
  });
  return best < 0 ? null : { rating: numbers[best]!, decidingHz: RATED_OCTAVES[best]! };
}

/** What the room's own noise has to do with a spectrum. */
export interface LessNoise {
  /** what is left when the noise is taken off; NaN where it explains too much of it */
  levelDb: Float64Array;
  /** part of the power in each band that the noise explains, 0 to 1 */
  share: Float64Array;
  /** of all bands together */
  overallShare: number;
}

/** Less than this over the noise, dB, and what would be left cannot be told from it (ISO 3744, 8.2.3). */
export const LEAST_OVER_NOISE_DB = 3;

/**
 * A spectrum less the room's own noise, by power; both averaged with nothing else changed.
 * @param levelDb with both, dB. @param noiseDb of the noise by itself, as many bands
 * @throws RangeError for lengths that differ
 */
export function lessNoise(levelDb: Float64Array, noiseDb: Float64Array): LessNoise {
  if (levelDb.length !== noiseDb.length)
    throw new RangeError(`lessNoise: ${levelDb.length} levels, ${noiseDb.length} of noise`);
  let [all, explained] = [0, 0];
  const share = levelDb.map((level, b) => {
    const [both, noise] = [powerOfDb(level), powerOfDb(noiseDb[b]!)];
    if (Number.isNaN(both) || Number.isNaN(noise)) return NaN;
    all += both;
    explained += Math.min(both, noise);
    return both > 0 ? Math.min(1, noise / both) : 1;
  });
  return {
    share,
    levelDb: levelDb.map((level, b) =>
      level - noiseDb[b]! >= LEAST_OVER_NOISE_DB ? level + dbOfPower(1 - share[b]!) : NaN,
    ),
    overallShare: all > 0 ? explained / all : NaN,
  };
}
