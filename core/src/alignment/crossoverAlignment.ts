import { crossoverBiquads, pathTrace, signalPath, type CrossoverFilter } from '../path/index.js';
import { multiplyTraces, type ComplexTrace } from '../signal/index.js';
import { summationOf } from './summation.js';

/** How a channel and the subwoofers are crossed over. */
export interface CrossoverSetting {
  highPass: CrossoverFilter | null;
  lowPass: CrossoverFilter | null;
  /** of the subwoofers against the channel; below 0 the channel waits */
  subDelayS: number;
  subInverted: boolean;
}

export interface CrossoverAlignment extends CrossoverSetting {
  /** null where none of what was offered gives the two a band to share */
  efficiency: number | null;
  /** whether the best lies at the end of the delays that were searched, so that a better one may lie beyond it */
  atEdge: boolean;
}

/** Sound goes 17 m in it. */
const MOST_DELAY_S = 0.05;
const COARSE_S = 0.0005;
const FINEST_S = 5e-6;
/** Results this close are alike; the shorter delay wins. */
const ALIKE = 0.002;

/** Traces as they are behind a high-pass. */
export const highPassed = (
  main: ComplexTrace[],
  { highPass }: Pick<CrossoverSetting, 'highPass'>,
  rate: number,
) => behind(main, signalPath(rate, { filters: crossoverBiquads('highpass', highPass, rate) }));

/** What subwoofers play of a channel's bass: behind a low-pass, delayed, inverted where it says. */
export const lowPassed = (
  subs: ComplexTrace[],
  { lowPass, subDelayS, subInverted }: Omit<CrossoverSetting, 'highPass'>,
  rate: number,
) =>
  behind(
    subs,
    signalPath(rate, {
      filters: crossoverBiquads('lowpass', lowPass, rate),
      delayS: subDelayS,
      inverted: subInverted,
    }),
  );

function behind(traces: ComplexTrace[], path: ReturnType<typeof signalPath>): ComplexTrace[] {
  const filter = pathTrace(path, traces[0]!.frequency);
  return traces.map((trace) => multiplyTraces(trace, filter));
}

/**
 * Delay and polarity of the subwoofers against a channel, and of the crossovers offered the one, that add up best over all
 * points. A coarse grid of 0.5 ms (a twentieth of a period at 100 Hz) cannot miss the best cycle; the best is refined.
 * @param main as it is without a crossover, one for each point; @param subs all together, likewise
 * @param mostDelayS delays are searched as far to either side: as far as the place is large
 * @throws RangeError when nothing is offered, or for a range that is not above 0 s
 */
export function alignCrossover(
  main: ComplexTrace[],
  subs: ComplexTrace[],
  offered: Pick<CrossoverSetting, 'highPass' | 'lowPass'>[],
  rate: number,
  mostDelayS = MOST_DELAY_S,
): CrossoverAlignment {
  if (!(mostDelayS > 0 && mostDelayS < 10))
    throw new RangeError(`alignCrossover: delays are searched up to 0 to 10 s, got ${mostDelayS}`);
  if (offered.length === 0) throw new RangeError('alignCrossover: no crossover was offered');
  let best: CrossoverAlignment = {
    ...offered[0]!,
    subDelayS: 0,
    subInverted: false,
    efficiency: null,
    atEdge: false,
  };
  for (const crossover of offered) {
    const efficiencyAt = searchOf(main, subs, crossover, rate);
    for (const subInverted of [false, true]) {
      const last = Math.ceil(mostDelayS / COARSE_S - 1e-9);
      for (let step = -last; step <= last; step++) {
        const subDelayS = Number((step * COARSE_S).toFixed(6));
        const candidate = {
          ...crossover,
          subDelayS,
          subInverted,
          efficiency: efficiencyAt(subDelayS, subInverted),
          atEdge: Math.abs(step) === last,
        };
        if (isBetter(candidate, best)) best = candidate;
      }
    }
  }
  const efficiencyAt = searchOf(main, subs, best, rate);
  for (let step = COARSE_S / 2; step > FINEST_S; step /= 2) {
    for (const by of [-step, step]) {
      const subDelayS = Number((best.subDelayS + by).toFixed(6));
      const efficiency = efficiencyAt(subDelayS, best.subInverted);
      if ((efficiency ?? 0) > (best.efficiency ?? 0)) best = { ...best, subDelayS, efficiency };
    }
  }
  return best;
}

/** Efficiency by delay and polarity of one crossover, what does not change worked out once. */
function searchOf(
  main: ComplexTrace[],
  subs: ComplexTrace[],
  { highPass, lowPass }: Pick<CrossoverSetting, 'highPass' | 'lowPass'>,
  rate: number,
) {
  const high = highPassed(main, { highPass }, rate);
  const low = lowPassed(subs, { lowPass, subDelayS: 0, subInverted: false }, rate);
  return (subDelayS: number, subInverted: boolean): number | null =>
    summationOf(high, lowPassed(low, { lowPass: null, subDelayS, subInverted }, rate)).efficiency;
}

function isBetter(candidate: CrossoverAlignment, best: CrossoverAlignment): boolean {
  if (candidate.efficiency === null) return false;
  if (best.efficiency === null || candidate.efficiency > best.efficiency + ALIKE) return true;
  const isShorter = Math.abs(candidate.subDelayS) < Math.abs(best.subDelayS) - 1e-9;
  return isShorter && candidate.efficiency >= best.efficiency - ALIKE / 2;
}
