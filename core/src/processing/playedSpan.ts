import { biquadAt, logGrid } from '../signal/index.js';
import { outputBiquads, type OutputSettings } from './settings.js';

/** Where crossovers take away more than this, a channel is no longer asked to play. */
const MOST_TAKEN_DB = 12;
const LEAST_POWER = 10 ** (-MOST_TAKEN_DB / 10);

/**
 * The part of a span that a channel plays with the crossovers of its output: where they take away no more than 12 dB.
 * Below a high-pass there is little but noise, and nothing to hold a prediction against.
 * @returns the span itself where nothing of it is left
 */
export function playedSpan(
  span: { from: number; to: number },
  settings: OutputSettings,
  rate: number,
): { from: number; to: number } {
  const crossovers = outputBiquads({ ...settings, sections: [] }, rate);
  const played = [...logGrid(span.from, span.to, 48)].filter((f) => {
    const power = crossovers.reduce((product, section) => {
      const [re, im] = biquadAt(section, f, rate);
      return product * (re * re + im * im);
    }, 1);
    return power >= LEAST_POWER;
  });
  if (played.length < 2) return span;
  const [first, last] = [played[0]!, played[played.length - 1]!];
  // the ends of the span stay as they are where a crossover does not move them
  const step = 2 ** (1 / 48);
  return { from: first < span.from * step ? span.from : first, to: last * step > span.to ? span.to : last };
}
