import { needAbove, needFinite } from '../limits/index.js';
import { bandSignals } from './octaveFilter.js';

/**
 * Echo criterion after Dietsch and Kraak (Acustica 60, 1986): how fast the centre of |p|^n moves. Exponents, the time in which an
 * echo builds up, the band in which p is looked at, and the values at which one in ten and one in two listeners are disturbed.
 */
export const ECHO_SIGNALS = {
  speech: { exponent: 2 / 3, withinS: 0.009, bandHz: [700, 1400], tenth: 0.9, half: 1 },
  music: { exponent: 1, withinS: 0.014, bandHz: [700, 2800], tenth: 1.5, half: 1.8 },
} as const;
export type EchoSignal = keyof typeof ECHO_SIGNALS;

export interface EchoCriterion {
  /** seconds from one value to the next; the first belongs to the direct sound */
  stepS: number;
  values: Float64Array;
  largest: number;
  /** when it is largest, seconds after the direct sound */
  atS: number;
}

/** Values of it are asked for so often, seconds. */
const STEP_S = 0.001;

/**
 * The echo criterion of a response over time.
 * @param pressure samples @param onset index of the direct sound
 * @throws RangeError for a response that ends before it could echo
 */
export function echoCriterion(
  pressure: Float64Array,
  rate: number,
  onset: number,
  signal: EchoSignal,
): EchoCriterion {
  needFinite('echoCriterion', 'response', pressure);
  needAbove('echoCriterion', 'rate', rate, 2 * ECHO_SIGNALS[signal].bandHz[1]);
  const { exponent, withinS, bandHz } = ECHO_SIGNALS[signal];
  const within = Math.round(withinS * rate);
  needAbove('echoCriterion', 'samples after the direct sound', pressure.length - onset, 2 * within);
  const [band] = bandSignals(pressure, [{ from: bandHz[0], to: bandHz[1] }], rate);
  // a band rings ahead of what is in it; that belongs to the direct sound
  const lead = Math.min(onset, Math.round(rate / bandHz[0]));
  const length = band!.length - onset;
  const centre = new Float64Array(length);
  let [sum, moment] = [0, 0];
  for (let i = -lead; i < length; i++) {
    const p = Math.abs(band![onset + i]!) ** exponent;
    sum += p;
    moment += p * Math.max(0, i);
    if (i >= 0) centre[i] = sum > 0 ? moment / sum / rate : 0;
  }
  const values = new Float64Array(Math.floor((length - 1) / rate / STEP_S) + 1);
  let [largest, atS] = [0, 0];
  values.forEach((_, v) => {
    const i = Math.round(v * STEP_S * rate);
    const value = (centre[i]! - centre[Math.max(0, i - within)]!) / withinS;
    values[v] = value;
    if (value > largest) [largest, atS] = [value, v * STEP_S];
  });
  return { stepS: STEP_S, values, largest, atS };
}

/** Share of listeners who are disturbed, 0 to 1: one in ten and one in two as Dietsch and Kraak found, straight on between and beyond. */
export function disturbedShare(largest: number, signal: EchoSignal): number {
  const { tenth, half } = ECHO_SIGNALS[signal];
  return Math.min(1, Math.max(0, 0.1 + (0.4 * (largest - tenth)) / (half - tenth)));
}
