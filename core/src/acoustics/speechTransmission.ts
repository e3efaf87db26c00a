import { needAbove, needFinite, needLevels, needWithin } from '../limits/index.js';
import { findArrival } from '../measure/index.js';
import { octaveBands, type ImpulseResponse } from '../signal/index.js';
import { bandSignals } from './octaveFilter.js';

/** Octaves 125 Hz to 8 kHz, and modulation frequencies in third octaves (IEC 60268-16:2011, Annex A). */
export const SPEECH_OCTAVES = octaveBands(1, 120, 8100);
export const MODULATION_HZ = [0.63, 0.8, 1, 1.25, 1.6, 2, 2.5, 3.15, 4, 5, 6.3, 8, 10, 12.5] as const;

/** Weights of the octaves and of the redundancy between neighbours, male speech (Table A.1). */
const ALPHA = [0.085, 0.127, 0.23, 0.233, 0.309, 0.224, 0.173] as const;
const BETA = [0.085, 0.078, 0.065, 0.011, 0.047, 0.095] as const;
/** Speech in each octave against its A-weighted level, dB (male). */
export const SPEECH_SPECTRUM_DB = [2.9, 2.9, -0.8, -6.8, -12.8, -18.8, -24.8] as const;
/** Absolute reception threshold of each octave, dB SPL (Table A.2). */
const THRESHOLD_DB = [46, 27, 12, 6.5, 7.5, 8, 12] as const;

/** Level that speech has at the listener, and the noise there: dB SPL per octave, 125 Hz to 8 kHz. */
export interface SpeechAndNoise {
  speechDb: readonly number[];
  noiseDb: readonly number[];
}

const EXACT_EACH = 256;

/**
 * Modulation transfer of one octave: |integral h^2 e^{-jwt}| / integral h^2 (Schroeder 1981).
 * @param squared energy over time, from the direct sound on
 */
export function modulationTransfer(squared: Float64Array, rate: number, modulationHz: number): number {
  needAbove('modulationTransfer', 'rate', rate, 0);
  needAbove('modulationTransfer', 'modulation frequency', modulationHz, 0);
  needFinite('modulationTransfer', 'energy', squared);
  let [re, im, sum] = [0, 0, 0];
  const w = (2 * Math.PI * modulationHz) / rate;
  const [turnRe, turnIm] = [Math.cos(w), Math.sin(w)];
  for (let from = 0; from < squared.length; from += EXACT_EACH) {
    // turned on from one sample to the next, and now and then exactly
    let [c, s] = [Math.cos(w * from), Math.sin(w * from)];
    const to = Math.min(squared.length, from + EXACT_EACH);
    for (let i = from; i < to; i++) {
      const e = squared[i]!;
      re += e * c;
      im += e * s;
      sum += e;
      const next = c * turnRe - s * turnIm;
      s = c * turnIm + s * turnRe;
      c = next;
    }
  }
  return sum > 0 ? Math.hypot(re, im) / sum : NaN;
}

/**
 * Speech transmission index, male speech (IEC 60268-16:2011): with levels, noise, the masking by the octave below and the
 * threshold of hearing count; without, only reverberation does.
 * @returns 0 to 1; null for a response of zeros
 */
export function speechTransmission(
  impulse: ImpulseResponse,
  levels: SpeechAndNoise | null = null,
  endS?: number,
): number | null {
  const { samples, rate, zero } = impulse;
  const arrival = findArrival(impulse);
  if (!arrival) return null;
  const start = Math.max(0, zero + Math.round((arrival.onsetS - 0.005) * rate));
  const end = endS === undefined ? samples.length : Math.min(samples.length, zero + Math.round(endS * rate));
  // modulations are slow: the energy is kept in steps of 1 ms
  const step = Math.max(1, Math.round(rate / 1000));
  const matrix = bandSignals(samples, SPEECH_OCTAVES, rate).map((filtered) => {
    const squared = new Float64Array(Math.ceil((end - start) / step));
    for (let i = start; i < end; i++) {
      const at = Math.floor((i - start) / step);
      squared[at] = squared[at]! + filtered[i]! ** 2;
    }
    return MODULATION_HZ.map((f) => modulationTransfer(squared, rate / step, f));
  });
  return indexOfMatrix(matrix, levels);
}

/**
 * Index of a modulation transfer matrix: 7 octaves of 14 modulation frequencies, each 0 to 1 (Annex A.5).
 * @throws RangeError for another shape
 */
export function indexOfMatrix(matrix: number[][], levels: SpeechAndNoise | null = null): number {
  if (matrix.length !== 7 || matrix.some((row) => row.length !== MODULATION_HZ.length))
    throw new RangeError(`indexOfMatrix: want 7 x 14 values, got ${matrix.length} rows`);
  for (const row of matrix) for (const m of row) needWithin('indexOfMatrix', 'modulation transfer', m, 0, 1);
  if (levels) {
    needLevels('indexOfMatrix', 'speech levels', levels.speechDb);
    needLevels('indexOfMatrix', 'noise levels', levels.noiseDb);
  }
  const transfer = matrix.map((row, k) => {
    const kept = levels ? intensityShare(k, levels) : 1;
    const indices = row.map((m) => {
      const snr = Math.min(15, Math.max(-15, 10 * Math.log10((m * kept) / (1 - m * kept))));
      return (snr + 15) / 30;
    });
    return indices.reduce((a, b) => a + b, 0) / indices.length;
  });
  let sum = 0;
  transfer.forEach((mti, k) => {
    sum += ALPHA[k]! * mti;
    if (k < 6) sum -= BETA[k]! * Math.sqrt(mti * transfer[k + 1]!);
  });
  return Math.min(1, Math.max(0, sum));
}

/** Speech's share of all that is heard in an octave: itself, the noise, the masking from below, the threshold of hearing. */
function intensityShare(k: number, { speechDb, noiseDb }: SpeechAndNoise): number {
  const power = (db: number) => 10 ** (db / 10);
  const speech = power(speechDb[k]!);
  const noise = power(noiseDb[k]!);
  let masking = 0;
  if (k > 0) {
    const below = power(speechDb[k - 1]!) + power(noiseDb[k - 1]!);
    masking = below * power(maskingDb(10 * Math.log10(below)));
  }
  return speech / (speech + noise + masking + power(THRESHOLD_DB[k]!));
}

/** Slope of upward masking over the level of the octave below (Table A.3). */
function maskingDb(levelDb: number): number {
  if (levelDb < 63) return 0.5 * levelDb - 65;
  if (levelDb < 67) return 1.8 * levelDb - 146.9;
  if (levelDb < 100) return 0.5 * levelDb - 59.8;
  return -10;
}
