import type { Arrival } from '@pebble-hall/core/tracing';

/** 500 Hz, 1 and 2 kHz among the octaves: where speech is understood. */
const OF_SPEECH = [3, 4, 5];
const sum = ({ energy }: Pick<Arrival, 'energy'>) => OF_SPEECH.reduce((s, o) => s + energy[o]!, 0);

/** Level of an arrival against another one, dB, from 500 Hz to 2 kHz. */
export const levelOf = (arrival: Pick<Arrival, 'energy'>, against: Pick<Arrival, 'energy'>): number =>
  10 * Math.log10(sum(arrival) / sum(against));

/** By how many faces an arrival met: none, one, two, three, more. */
export const ARRIVAL_COLOURS = [
  'var(--ink)',
  'var(--kelp)',
  'var(--trace-slate)',
  'var(--trace-heather)',
  'var(--trace-gorse)',
] as const;
