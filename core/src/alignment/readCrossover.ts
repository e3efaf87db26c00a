import { feedPath, type BassFeed } from '../processing/index.js';
import { pathTrace, sumPathsAtPoints, type SignalPath } from '../path/index.js';
import { averagePower } from '../correct/index.js';
import { multiplyTraces, powerOf, type ComplexTrace } from '../signal/index.js';
import { highPassed, lowPassed, type CrossoverSetting } from './crossoverAlignment.js';
import { averageLevel, levelApart, summationOf, type Summation } from './summation.js';

/** One loudspeaker as measured at several points, and what stands ahead of it now, beside the crossover that is being chosen. */
export interface CrossoverPart {
  traces: ComplexTrace[];
  path: SignalPath;
  /** what it was measured through */
  measuredThrough: SignalPath | null;
}

/** A channel and all subwoofers at the same points. */
export interface CrossoverParts {
  main: CrossoverPart;
  subs: CrossoverPart[];
  /** one for each point; all alike when not given */
  weights?: number[] | undefined;
}

const played = (parts: CrossoverPart[]): ComplexTrace[] =>
  sumPathsAtPoints(
    parts,
    parts.map((p) => p.traces),
  );

/** The channel, and the subwoofers together, at every point ahead of their crossover. */
export const sidesOf = ({ main, subs }: CrossoverParts): { main: ComplexTrace[]; subs: ComplexTrace[] } => ({
  main: played([main]),
  subs: played(subs),
});

/** Where the low-frequency channel is held against a full-range one, Hz. */
export const LOW_BAND = { from: 30, to: 80 };

/** A channel and its bass, with their power averages over the points, dB on `frequency`. */
export interface CrossoverReading extends Summation {
  frequency: Float64Array;
  mainDb: Float64Array;
  subsDb: Float64Array;
  sumDb: Float64Array;
  /** the sum at the quietest and at the loudest point, dB */
  sumRange: { lowDb: Float64Array; highDb: Float64Array };
  /** null where there is no low-frequency channel */
  lowDb: Float64Array | null;
  /** mean level of the low-frequency channel above the channel and its bass in `LOW_BAND`, dB */
  lowAboveDb: number | null;
}

/**
 * How a channel and the bass that the subwoofers play of it add up as their crossover is set.
 * @param low the low-frequency channel; null for none
 */
export function readCrossover(
  parts: CrossoverParts,
  setting: CrossoverSetting,
  low: BassFeed | null,
): CrossoverReading {
  const { rate } = parts.main.path;
  const { main, subs } = sidesOf(parts);
  const high = highPassed(main, setting, rate);
  const fed = lowPassed(subs, setting, rate);
  const sum = high.map(({ frequency, re, im }, p) => ({
    frequency,
    re: re.map((v, k) => v + fed[p]!.re[k]!),
    im: im.map((v, k) => v + fed[p]!.im[k]!),
  }));
  const { frequency } = main[0]!;
  const { averageDb, lowDb, highDb } = averagePower(frequency, sum.map(powerOf), parts.weights);
  const feed = low && pathTrace(feedPath(low, rate), frequency);
  const lowPlayed = feed && subs.map((trace) => multiplyTraces(trace, feed));
  return {
    ...summationOf(high, fed),
    frequency,
    mainDb: averageLevel(high),
    subsDb: averageLevel(fed),
    sumDb: averageDb,
    sumRange: { lowDb, highDb },
    lowDb: lowPlayed && averageLevel(lowPlayed),
    lowAboveDb: lowPlayed && levelApart(lowPlayed, sum, LOW_BAND),
  };
}
