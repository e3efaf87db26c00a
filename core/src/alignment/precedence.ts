import type { ComplexTrace } from '../signal/index.js';
import { needLevels, needNumber } from '../limits/index.js';

/** What comes later by this much, seconds, is heard from where the first came from ... */
export const LEADS_S = { from: 0.001, to: 0.03 } as const;
/** ... as long as it is not louder than the first by more, dB (Haas 1951: the louder echo that is as loud to the ear). */
export const LEADS_DB = 10;

/** Two sources at one place, as who listens there hears them. */
export interface HeardTwo {
  /** by how much the second is heard later, seconds; below 0 it is first */
  laterS: number;
  /** how much louder the second is, dB */
  louderDb: number;
}

/** Why the first of two is not the one that is heard from. */
export type NotLed = 'too loud' | 'first' | 'too late';

/** Whether the first of two sources is where the sound seems to come from; what keeps it from that where it does not. */
export function notLed({ laterS, louderDb }: HeardTwo): NotLed | null {
  needNumber('notLed', 'how much later in s', laterS);
  needLevels('notLed', 'how much louder in dB', [louderDb]);
  // so soft that it does not matter when it comes
  if (louderDb < -LEADS_DB) return null;
  if (laterS < LEADS_S.from) return 'first';
  if (laterS > LEADS_S.to) return 'too late';
  return louderDb > LEADS_DB ? 'too loud' : null;
}

/** The delay with which the second comes so much after the first at a place, from the delay that it has. All in seconds. */
export const delayForOffset = (delayS: number, laterS: number, offsetS: number): number =>
  delayS + offsetS - laterS;

/** Octaves that are told beside each other, Hz. */
export const OCTAVES = [63, 125, 250, 500, 1000, 2000, 4000, 8000] as const;

/**
 * By how much the second of two is louder than the first in each octave, dB: mean power over the points of the traces in it (a logarithmic axis
 * weighs as the ear does).
 * @param first @param second on the same frequencies, Hz; NaN where nothing is known
 * @returns one for each of `OCTAVES`; NaN where either is not known in half of it
 */
export function louderPerOctave(first: ComplexTrace, second: ComplexTrace): Float64Array {
  if (first.frequency.length !== second.frequency.length)
    throw new RangeError(
      `louderPerOctave: traces of ${first.frequency.length} and ${second.frequency.length} frequencies`,
    );
  return Float64Array.from(OCTAVES, (middle) => {
    const inside = [...first.frequency.keys()].filter(
      (n) => Math.abs(Math.log2(first.frequency[n]! / middle)) <= 0.5,
    );
    const mean = ({ re, im }: ComplexTrace) => {
      const known = inside.map((n) => re[n]! ** 2 + im[n]! ** 2).filter((p) => Number.isFinite(p));
      return known.length > 0 && 2 * known.length >= inside.length
        ? known.reduce((a, b) => a + b, 0) / known.length
        : NaN;
    };
    return 10 * Math.log10(mean(second) / mean(first));
  });
}
