import QuickLRU from 'quick-lru';
import {
  gainOfDb,
  inverseRealFft,
  multiplyTraces,
  realFft,
  seededRandom,
  shapedNoise,
  type ComplexTrace,
} from '../signal/index.js';

/** How far the peaks of programme noise stand over its RMS, dB: what lies beyond is limited, as programme is. */
const CREST_DB = 12;
/** Between these, programme noise has the same power in every octave. */
const LOWEST_HZ = 32;
const HIGHEST_HZ = 16_000;
/** Strokes in a second, each of a tone that dies away in so many of its periods. */
const STROKES_PER_S = 12;
const STROKE_PERIODS = 8;

/**
 * A programme-like signal that repeats, its peaks at full scale: for the first half pink noise from 32 Hz to 16 kHz limited to
 * a crest factor of 12 dB, then strokes of tones from 32 Hz to 8 kHz that die away, twelve in a second. Always the same.
 * @returns spectrum of `size` samples
 */
export function programmeSpectrum(size: number, rate: number): ComplexTrace {
  const key = `${size} ${rate}`;
  const known = made.get(key);
  if (known) return known;
  const signal = new Float64Array(size);
  signal.set(programmeNoise(size / 2, rate));
  signal.set(strokes(size / 2, rate), size / 2);
  const spectrum = realFft(signal, size, rate);
  made.set(key, spectrum);
  return spectrum;
}

const MOST_KEPT = 4;
const made = new QuickLRU<string, ComplexTrace>({ maxSize: MOST_KEPT });

function programmeNoise(size: number, rate: number): Float64Array {
  const noise = shapedNoise(size, rate, 1, (f) => (f < LOWEST_HZ || f > HIGHEST_HZ ? 0 : 1 / f));
  const top = gainOfDb(CREST_DB);
  return noise.map((v) => Math.max(-1, Math.min(1, v / top)));
}

function strokes(size: number, rate: number): Float64Array {
  const random = seededRandom(2);
  const out = new Float64Array(size);
  const count = Math.max(1, Math.round((STROKES_PER_S * size) / rate));
  for (let i = 0; i < count; i++) {
    const from = Math.floor(random.uniform() * size);
    const f = 32 * 2 ** (8 * random.uniform());
    const dies = (STROKE_PERIODS / f) * rate;
    for (let n = 0; n < Math.min(size, 6 * dies); n++) {
      const at = (from + n) % size;
      out[at] = out[at]! + Math.exp(-n / dies) * Math.sin((2 * Math.PI * f * n) / rate);
    }
  }
  const top = largestOf(out);
  return out.map((v) => v / top);
}

/** Largest |sample|. */
export function largestOf(samples: Float64Array): number {
  let [low, high] = [0, 0];
  for (let i = 0; i < samples.length; i++) {
    const v = samples[i]!;
    if (v > high) high = v;
    else if (v < low) low = v;
  }
  return Math.max(high, -low);
}

/** Largest |sample| that a response makes of programme at full scale; it wraps around at the end of `response`. */
export function programmePeak(response: ComplexTrace, size: number, rate: number): number {
  return largestOf(inverseRealFft(multiplyTraces(programmeSpectrum(size, rate), response)));
}

/** Squares from 20 Hz on, so many in an octave. */
const LOWEST_SQUARE_HZ = 20;
const SQUARES_PER_OCTAVE = 16;
/** What lies this far below the peak of an impulse response adds nothing. */
const NOTHING = 1e-7;

/**
 * Largest |sample| that an impulse response makes of a lasting square at full scale, over squares from 20 Hz up to a quarter of the
 * rate, whole samples long. The response is folded into one period: the steady state is then its circular convolution with
 * that period, which is a running sum.
 */
export function squarePeak(impulse: Float64Array, rate: number): { peak: number; atHz: number } {
  const least = NOTHING * largestOf(impulse);
  let end = impulse.length;
  while (end > 1 && Math.abs(impulse[end - 1]!) < least) end--;
  let best = { peak: 0, atHz: 0 };
  let last = 0;
  const longest = Math.ceil(rate / LOWEST_SQUARE_HZ / 2);
  const folded = new Float64Array(2 * longest);
  for (let step = 0; ; step++) {
    const half = Math.round(longest * 2 ** (-step / SQUARES_PER_OCTAVE));
    if (half < 2) break;
    if (half === last) continue;
    last = half;
    const period = 2 * half;
    folded.fill(0, 0, period);
    for (let from = 0; from < end; from += period) {
      const most = Math.min(period, end - from);
      for (let m = 0; m < most; m++) folded[m] = folded[m]! + impulse[from + m]!;
    }
    // at the end of the half that is up: what came in during it counts +, what came before it -
    let sum = 0;
    for (let m = 0; m < period; m++) sum += m < half ? folded[m]! : -folded[m]!;
    let peak = Math.abs(sum);
    for (let m = 0; m < half; m++) {
      sum -= 2 * (folded[m]! - folded[m + half]!);
      const size = sum < 0 ? -sum : sum;
      if (size > peak) peak = size;
    }
    if (peak > best.peak) best = { peak, atHz: rate / period };
  }
  return best;
}
