import { needAbove, needWhole } from '../limits/index.js';
import { fftSizeFor, inverseRealFft } from './fft.js';
import { seededRandom } from './random.js';

/** An hour at 96 kHz. */
const MOST_SAMPLES = 3.5e8;

/** White Gaussian noise of unit RMS (in expectation): `length` samples, the same for the same seed. */
export function whiteNoise(length: number, seed: number): Float64Array {
  needWhole('whiteNoise', 'length', length, 0, MOST_SAMPLES);
  const random = seededRandom(seed);
  const out = new Float64Array(length);
  for (let i = 0; i < length; i++) out[i] = random.normal();
  return out;
}

/**
 * Gaussian noise whose power density follows a shape, of unit RMS (in expectation, over the whole period).
 * @param density relative power density at a frequency in Hz, above 0 Hz; nothing at 0 Hz
 */
export function shapedNoise(
  length: number,
  rate: number,
  seed: number,
  density: (frequency: number) => number,
) {
  needWhole('shapedNoise', 'length', length, 1, MOST_SAMPLES);
  needAbove('shapedNoise', 'rate', rate, 0);
  const size = fftSizeFor(length);
  const random = seededRandom(seed);
  const bins = size / 2 + 1;
  const re = new Float64Array(bins);
  const im = new Float64Array(bins);
  let total = 0;
  for (let k = 1; k < bins - 1; k++) {
    const p = density((k * rate) / size);
    total += 2 * p;
    const amplitude = Math.sqrt(p / 2);
    re[k] = amplitude * random.normal();
    im[k] = amplitude * random.normal();
  }
  const scale = size / Math.sqrt(total);
  for (let k = 0; k < bins; k++) {
    re[k] = re[k]! * scale;
    im[k] = im[k]! * scale;
  }
  return inverseRealFft({ re, im }).slice(0, length);
}

/** Pink noise, -3 dB per octave from 10 Hz to half the rate, unit RMS (in expectation). */
export const pinkNoise = (length: number, rate: number, seed: number): Float64Array =>
  shapedNoise(length, rate, seed, (f) => (f < 10 ? 0 : 1 / f));
