import { needAbove, needLevels, needNumber } from '../limits/index.js';
import {
  biquadTrace,
  convolve,
  delayTrace,
  divideTraces,
  filterBiquads,
  gainOfDb,
  multiplyTraces,
  type Biquad,
  type ComplexTrace,
  type RealArray,
} from '../signal/index.js';
import { responseAt } from './responseAt.js';

/**
 * What stands between a signal and the place where it is heard or measured: a FIR, sections and crossovers, gain, delay
 * and polarity. Everything that is predicted asks this.
 */
export interface SignalPath {
  rate: number;
  fir: RealArray | null;
  /** sections and crossovers, made for `rate` */
  filters: Biquad[];
  /** -Infinity where it is muted */
  gainDb: number;
  delayS: number;
  inverted: boolean;
}

/** A path with what is named, and nothing else in it. */
export function signalPath(rate: number, parts: Partial<SignalPath> = {}): SignalPath {
  const path = { fir: null, filters: [], gainDb: 0, delayS: 0, inverted: false, ...parts, rate };
  needAbove('signalPath', 'rate', rate, 0);
  needLevels('signalPath', 'gain', [path.gainDb]);
  needNumber('signalPath', 'delay in s', path.delayS);
  return path;
}

/**
 * Two paths, one behind the other.
 * @throws RangeError when their rates differ
 */
export function inSeries(first: SignalPath, second: SignalPath): SignalPath {
  if (first.rate !== second.rate)
    throw new RangeError(`inSeries: paths at ${first.rate} and ${second.rate} Hz`);
  return {
    rate: first.rate,
    fir: first.fir && second.fir ? convolve(first.fir, second.fir) : (first.fir ?? second.fir),
    filters: [...first.filters, ...second.filters],
    gainDb: first.gainDb + second.gainDb,
    delayS: first.delayS + second.delayS,
    inverted: first.inverted !== second.inverted,
  };
}

/** Factor of gain and polarity. */
export const pathGain = ({ gainDb, inverted }: Pick<SignalPath, 'gainDb' | 'inverted'>): number =>
  gainOfDb(gainDb) * (inverted ? -1 : 1);

/** Response of a path at any frequencies, Hz. */
export function pathTrace(path: SignalPath, frequency: Float64Array): ComplexTrace {
  const { fir, filters, delayS, rate } = path;
  let trace = biquadTrace(filters, frequency, rate);
  if (fir && fir.length > 0)
    trace = multiplyTraces(trace, responseAt({ samples: fir, rate, zero: 0 }, frequency));
  const gain = pathGain(path);
  if (gain !== 1) {
    for (let k = 0; k < trace.re.length; k++) {
      trace.re[k] = trace.re[k]! * gain;
      trace.im[k] = trace.im[k]! * gain;
    }
  }
  return delayS === 0 ? trace : delayTrace(trace, delayS);
}

/** What an old path took away is given back by no more than this: beyond it there is only noise. */
const MOST_GIVEN_BACK_DB = 30;

/** What it does to a measurement that a path takes the place of the one it was measured through. */
export const exchangeTrace = (
  path: SignalPath,
  measuredThrough: SignalPath,
  frequency: Float64Array,
): ComplexTrace =>
  divideTraces(
    pathTrace(path, frequency),
    pathTrace(measuredThrough, frequency),
    gainOfDb(MOST_GIVEN_BACK_DB),
  );

/** A signal through the filters and the gain of a path, from rest; without its delay. As long as signal and FIR together. */
export function throughFilters(signal: RealArray, path: SignalPath): Float64Array {
  const { fir, filters } = path;
  const filtered = filterBiquads(fir ? convolve(signal, fir) : signal, filters);
  const gain = pathGain(path);
  return gain === 1 ? filtered : filtered.map((v) => gain * v);
}
