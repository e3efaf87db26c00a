import {
  dbOfGain,
  dbOfPower,
  emptySpectrum,
  fftSizeFor,
  FINE_SIZE,
  inverseRealFft,
  multiplyTraces,
  powerOf,
  addTo,
  binFrequencies,
  constantTrace,
  fftSizeOf,
  type ComplexTrace,
  type RealArray,
} from '../signal/index.js';
import { pathGain, pathTrace, type SignalPath } from './signalPath.js';

/** What a path does to a steady tone at most. */
export interface LargestTone {
  /** largest gain at any frequency, dB; the frequencies between bins are found by a parabola */
  toneDb: number;
  /** where that is, Hz */
  atHz: number;
}

export interface Headroom extends LargestTone {
  /** largest peak that full scale can become in the worst case, between samples too, dB: the sum of |h| at four times the rate */
  worstPeakDb: number;
}

/** Samples are looked at this many times as densely, as true peaks are (ITU-R BS.1770-4, annex 2). */
const OVERSAMPLED = 4;

const sizeOf = ({ fir }: SignalPath): number => fftSizeFor(Math.max(2 * (fir?.length ?? 1), FINE_SIZE));
const fineTrace = (path: SignalPath, size = sizeOf(path)): ComplexTrace =>
  pathTrace(path, binFrequencies(size, path.rate));

/** What a path asks of headroom. */
export function headroomOf(path: SignalPath): Headroom {
  const trace = fineTrace(path);
  const { fir, filters } = path;
  // between no samples nothing needs to be reckoned: a FIR alone is its own response
  const own = fir && filters.length === 0 ? pathGain(path) * sumOfTaps(fir) : 0;
  return { ...toneOf(trace), worstPeakDb: dbOfGain(Math.max(Math.abs(own), sumOfParts(trace, own === 0))) };
}

/** The same for steady tones alone, which takes a fifth of the time. */
export const largestTone = (path: SignalPath): LargestTone => toneOf(fineTrace(path));

/**
 * What each of several paths does at most to the sum of feeds that carry the same steady tone at full scale at once.
 * @returns one for each path, in their order
 */
export function largestOfSum(feeds: SignalPath[], paths: SignalPath[]): LargestTone[] {
  const size = Math.max(...[...feeds, ...paths].map(sizeOf));
  const first = feeds[0] ?? paths[0];
  if (!first) return [];
  const sum = constantTrace(binFrequencies(size, first.rate), 0);
  for (const feed of feeds) addTo(sum, fineTrace(feed, size));
  return paths.map((path) => toneOf(multiplyTraces(fineTrace(path, size), sum)));
}

function toneOf(trace: ComplexTrace): LargestTone {
  const power = powerOf(trace);
  let top = 0;
  for (let k = 1; k < power.length; k++) if (power[k]! > power[top]!) top = k;
  const [a, b, c] = [power[top - 1] ?? 0, power[top]!, power[top + 1] ?? 0].map(dbOfPower) as [
    number,
    number,
    number,
  ];
  const bend = a - 2 * b + c;
  const isPeak = Number.isFinite(bend) && bend < 0;
  const shift = isPeak ? (0.5 * (a - c)) / bend : 0;
  return {
    toneDb: b - 0.25 * (isPeak ? a - c : 0) * shift,
    atHz: trace.frequency[top]! + shift * trace.frequency[1]!,
  };
}

/**
 * Largest sum of |h| over the phases between samples: the impulse response moved by quarters of a sample, which is what
 * zero-padding its spectrum would give, in transforms a quarter as long.
 */
function sumOfParts(trace: ComplexTrace, withSamples: boolean): number {
  let most = 0;
  const size = fftSizeOf(trace);
  const moved = emptySpectrum(size);
  const out = new Float64Array(size);
  for (let phase = withSamples ? 0 : 1; phase < OVERSAMPLED; phase++) {
    advance(trace, phase / OVERSAMPLED, moved);
    inverseRealFft(moved, out);
    let sum = 0;
    for (let i = 0; i < size; i++) sum += Math.abs(out[i]!);
    most = Math.max(most, sum);
  }
  return most;
}

function sumOfTaps(fir: RealArray): number {
  let sum = 0;
  for (let i = 0; i < fir.length; i++) sum += Math.abs(fir[i]!);
  return sum;
}

/** A spectrum earlier by a part of a sample, into `out`. */
function advance({ re, im }: ComplexTrace, samples: number, out: ComplexTrace): void {
  const size = fftSizeOf({ re });
  const step = (2 * Math.PI * samples) / size;
  const [stepC, stepS] = [Math.cos(step), Math.sin(step)];
  let [c, s] = [1, 0];
  for (let k = 0; k < re.length; k++) {
    if (k % 64 === 0) [c, s] = [Math.cos(step * k), Math.sin(step * k)]; // set right before rounding adds up
    out.re[k] = re[k]! * c - im[k]! * s;
    out.im[k] = re[k]! * s + im[k]! * c;
    const next = c * stepC - s * stepS;
    s = c * stepS + s * stepC;
    c = next;
  }
}
