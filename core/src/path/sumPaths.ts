import {
  addTo,
  binFrequencies,
  constantTrace,
  delayTrace,
  fftSizeFor,
  inverseRealFft,
  multiplyTraces,
  realFft,
  type ComplexTrace,
  type ImpulseResponse,
} from '../signal/index.js';
import { exchangeTrace, pathTrace, type SignalPath } from './signalPath.js';

/** A source as it was measured at a point, and the path that leads to it now. */
export interface PathSource<Response> {
  response: Response;
  path: SignalPath;
  /** what it was measured through, and what the path takes the place of; null where it was measured by itself */
  measuredThrough?: SignalPath | null;
}

const filterOf = ({ path, measuredThrough }: PathSource<unknown>, frequency: Float64Array): ComplexTrace =>
  measuredThrough ? exchangeTrace(path, measuredThrough, frequency) : pathTrace(path, frequency);

/**
 * What any number of sources make together at one point: the sum of their responses, each through its path.
 * @param sources at least one, all at the same frequencies (Hz)
 * @throws RangeError without sources, or for differing frequencies
 */
export function sumPaths(sources: PathSource<ComplexTrace>[]): ComplexTrace {
  const first = sources[0];
  if (!first) throw new RangeError('sumPaths: wants at least one source');
  const { frequency } = first.response;
  const sum = constantTrace(frequency, 0);
  for (const source of sources) addTo(sum, multiplyTraces(source.response, filterOf(source, frequency)));
  return sum;
}

/**
 * The same sources at several points: what the paths do is worked out once.
 * @param responses `[source][point]`
 * @returns one for each point
 */
export function sumPathsAtPoints(
  sources: Omit<PathSource<unknown>, 'response'>[],
  responses: ComplexTrace[][],
): ComplexTrace[] {
  const points = responses[0]?.length ?? 0;
  const frequency = responses[0]?.[0]?.frequency;
  if (!frequency || responses.length !== sources.length || responses.some((r) => r.length !== points))
    throw new RangeError(
      `sumPathsAtPoints: ${sources.length} sources want as many responses at every point, got ${responses.map((r) => r.length).join(', ')}`,
    );
  const sums = Array.from({ length: points }, () => constantTrace(frequency, 0));
  sources.forEach((source, s) => {
    const filter = filterOf({ ...source, response: null }, frequency);
    for (let p = 0; p < points; p++) addTo(sums[p]!, multiplyTraces(responses[s]![p]!, filter));
  });
  return sums;
}

/** Room for what sections and crossovers add behind the end, seconds. */
const TAIL_S = 0.1;

/**
 * What any number of sources make together at one point, in time.
 * @param sources at least one, all responses and paths at one rate
 * @returns longer than the longest response by FIR, delay and what the sections ring
 * @throws RangeError without sources, or for differing rates
 */
export function sumPathsInTime(sources: PathSource<ImpulseResponse>[]): ImpulseResponse {
  const first = sources[0]?.response;
  if (!first) throw new RangeError('sumPathsInTime: wants at least one source');
  const { rate } = first;
  for (const { response, path, measuredThrough } of sources) {
    if (response.rate !== rate || path.rate !== rate || (measuredThrough && measuredThrough.rate !== rate))
      throw new RangeError(
        `sumPathsInTime: wants one rate, got responses and paths at ${response.rate}, ${path.rate} and ${rate} Hz`,
      );
  }
  const zero = Math.max(...sources.map(({ response }) => response.zero));
  const longest = Math.max(
    ...sources.map(({ response, path, measuredThrough }) => {
      const later = Math.max(0, path.delayS - (measuredThrough?.delayS ?? 0));
      return response.samples.length + zero - response.zero + (path.fir?.length ?? 0) + later * rate;
    }),
  );
  const length = Math.ceil(longest + TAIL_S * rate);
  const size = fftSizeFor(length);
  const frequency = binFrequencies(size, rate);
  const sum = constantTrace(frequency, 0);
  for (const source of sources) {
    const { samples, zero: own } = source.response;
    const heard = multiplyTraces(realFft(samples, size, rate), filterOf(source, frequency));
    addTo(sum, own === zero ? heard : delayTrace(heard, (zero - own) / rate));
  }
  return { samples: inverseRealFft(sum).slice(0, length), rate, zero };
}
