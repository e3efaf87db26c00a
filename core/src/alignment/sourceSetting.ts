import { allPassTurns, crossoverBiquads, type AllPassSection, type CrossoverFilter } from '../path/index.js';
import { biquadTrace, gainOfDb, multiplyTraces, type ComplexTrace } from '../signal/index.js';

/** What is done to a source so that it adds up with others. */
export interface SourceSetting {
  gainDb: number;
  /** later by so much, seconds; below 0 it would have to play earlier, so that the others wait instead */
  delayS: number;
  inverted: boolean;
  allPasses: AllPassSection[];
  /** on top of what it is known with */
  highPass: CrossoverFilter | null;
  lowPass: CrossoverFilter | null;
}

/** What all-passes and crossovers need to ring out, seconds. */
export const RINGS_S = 0.2;
/** Crossovers are made as a processor at this rate makes them, Hz; far below half of it no other differs. */
const CROSSOVER_RATE = 96_000;

/** A source's response as it is set. */
export function asSet<T extends ComplexTrace>(
  trace: T,
  { gainDb, delayS, inverted, allPasses, highPass, lowPass }: SourceSetting,
): T {
  const { frequency } = trace;
  const gain = gainOfDb(gainDb) * (inverted ? -1 : 1);
  const turns = allPassTurns(allPasses, frequency);
  const re = new Float64Array(frequency.length);
  const im = new Float64Array(frequency.length);
  frequency.forEach((f, n) => {
    const turn = turns[n]! - 2 * Math.PI * f * delayS;
    const [c, s] = [gain * Math.cos(turn), gain * Math.sin(turn)];
    re[n] = c * trace.re[n]! - s * trace.im[n]!;
    im[n] = c * trace.im[n]! + s * trace.re[n]!;
  });
  const passes = [
    ...crossoverBiquads('highpass', highPass, CROSSOVER_RATE),
    ...crossoverBiquads('lowpass', lowPass, CROSSOVER_RATE),
  ];
  const set = { ...trace, re, im };
  if (passes.length === 0) return set;
  const { re: x, im: y } = multiplyTraces(set, biquadTrace(passes, frequency, CROSSOVER_RATE));
  return { ...set, re: x, im: y };
}

/** Sources at one place together. @param traces one or more, on the same frequencies */
export function together(traces: readonly ComplexTrace[]): ComplexTrace {
  const [first, ...others] = traces;
  if (!first) throw new RangeError('together: there is no source');
  const [re, im] = [first.re.slice(), first.im.slice()];
  for (const other of others) {
    if (other.re.length !== re.length)
      throw new RangeError(`together: sources of ${re.length} and ${other.re.length} frequencies`);
    other.re.forEach((v, n) => (re[n] = re[n]! + v));
    other.im.forEach((v, n) => (im[n] = im[n]! + v));
  }
  return { frequency: first.frequency, re, im };
}
