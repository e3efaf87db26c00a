import {
  dbOfGain,
  dbOfPower,
  fftSizeFor,
  FINE_SIZE,
  inverseRealFft,
  multiplyTraces,
  powerOf,
  addTo,
  binFrequencies,
  constantTrace,
  type ComplexTrace,
} from '../signal/index.js';
import { pathTrace, type SignalPath } from './signalPath.js';
import { programmePeak, squarePeak } from './testSignals.js';

/** What a path does to a steady tone at most. */
export interface LargestTone {
  /** largest gain at any frequency, dB; the frequencies between bins are found by a parabola */
  toneDb: number;
  /** where that is, Hz */
  atHz: number;
}

/** What a path asks of headroom; peaks are of signals whose own peak is at full scale, dB. */
export interface Headroom extends LargestTone {
  /** of programme-like signals: limited pink noise, and strokes that die away */
  programmeDb: number;
  /** of anything at full scale: the largest of tones and squares */
  fullScaleDb: number;
  /** of the two, what is largest, and its frequency */
  fullScaleOf: { kind: 'tone' | 'square'; atHz: number };
}

/** Narrow sections need fine bins; a FIR has none finer than its length. */
const sizeOf = ({ fir, filters }: SignalPath): number =>
  fftSizeFor(Math.max(4 * (fir?.length ?? 1), filters.length > 0 ? FINE_SIZE : FINE_SIZE / 2));
const fineTrace = (path: SignalPath, size = sizeOf(path)): ComplexTrace =>
  pathTrace(path, binFrequencies(size, path.rate));

/** What a path asks of headroom. */
export function headroomOf(path: SignalPath): Headroom {
  const { rate } = path;
  const size = sizeOf(path);
  // a delay moves peaks, and makes none
  const trace = fineTrace({ ...path, delayS: 0 }, size);
  const tone = toneOf(trace);
  const square = squarePeak(inverseRealFft(trace), rate);
  const squareDb = dbOfGain(square.peak);
  return {
    ...tone,
    programmeDb: dbOfGain(programmePeak(trace, size, rate)),
    fullScaleDb: Math.max(tone.toneDb, squareDb),
    fullScaleOf:
      squareDb > tone.toneDb ? { kind: 'square', atHz: square.atHz } : { kind: 'tone', atHz: tone.atHz },
  };
}

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
