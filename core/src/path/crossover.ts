import { butterworth, linkwitzRiley, type Biquad } from '../signal/index.js';

/** Orders of each shape of crossover; 6 dB per octave each. */
export const CROSSOVER_ORDERS = {
  Butterworth: [1, 2, 3, 4, 5, 6, 7, 8],
  'Linkwitz-Riley': [2, 4, 8],
} as const;
export type CrossoverKind = keyof typeof CROSSOVER_ORDERS;
export const CROSSOVER_KINDS = Object.keys(CROSSOVER_ORDERS) as CrossoverKind[];

export interface CrossoverFilter {
  kind: CrossoverKind;
  order: number;
  frequency: number;
}

/** Sections of a high- or low-pass at a rate; none for null. */
export function crossoverBiquads(
  pass: 'lowpass' | 'highpass',
  filter: CrossoverFilter | null,
  rate: number,
): Biquad[] {
  if (!filter) return [];
  const design = filter.kind === 'Butterworth' ? butterworth : linkwitzRiley;
  return design(pass, filter.order, filter.frequency, rate);
}
