import {
  dbOfGain,
  dbOfPower,
  fftSizeFor,
  inverseRealFft,
  multiplyTraces,
  powerOf,
  addTo,
  binFrequencies,
  constantTrace,
  fftSizeOf,
  type ComplexTrace,
} from '../signal/index.js';
import { pathTrace, type SignalPath } from './signalPath.js';

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

const FINE_SIZE = 131072;
/** Samples are looked at this many times as densely, as true peaks are (ITU-R BS.1770-4, annex 2). */
const OVERSAMPLED = 4;

const sizeOf = ({ fir }: SignalPath): number => fftSizeFor(Math.max(2 * (fir?.length ?? 1), FINE_SIZE));
const fineTrace = (path: SignalPath, size = sizeOf(path)): ComplexTrace =>
  pathTrace(path, binFrequencies(size, path.rate));

/** What a path asks of headroom. */
export function headroomOf(path: SignalPath): Headroom {
  const trace = fineTrace(path);
  return { ...toneOf(trace), worstPeakDb: dbOfGain(sumOfParts(trace)) };
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

/** Sum of |h| of the impulse response, made denser by zero-padding its spectrum. */
function sumOfParts({ re, im }: ComplexTrace): number {
  const size = fftSizeOf({ re });
  const wide = OVERSAMPLED * size;
  const [wideRe, wideIm] = [new Float64Array(wide / 2 + 1), new Float64Array(wide / 2 + 1)];
  wideRe.set(re);
  wideIm.set(im);
  const dense = inverseRealFft({ re: wideRe, im: wideIm });
  // each of the four interleaved responses is what one phase between the samples gives; the largest of them counts
  const sums = new Float64Array(OVERSAMPLED);
  for (let i = 0; i < dense.length; i++)
    sums[i % OVERSAMPLED] = sums[i % OVERSAMPLED]! + OVERSAMPLED * Math.abs(dense[i]!);
  return Math.max(...sums);
}
