import { OCTAVES } from '../room/index.js';
import type { Random } from '../signal/index.js';
import { BIN_S, type Heard } from '../tracing/index.js';

/** More reflections in a second than this are noise to the ear (Schröder 2011). */
export const DENSE_PER_S = 10_000;

/** What pulses are drawn from. */
export interface PulseRequest {
  /** cubic metres */
  volume: number;
  /** m/s */
  speed: number;
  random: Random;
}

/**
 * What rays brought, as pulses of either sign at random: as many as a room of this volume has by then (4 pi c^3 t^2 / V in a second, up to
 * 10,000, and at least one in each millisecond that has any energy), which in each millisecond have its energy (Vorlaender 2008).
 * Octaves share their pulses.
 * @param add told when each is after the direct sound, seconds, its amplitude per octave (reused: copy what is to be kept), and its bin
 */
export function latePulses(
  { bins, energy, directS }: Pick<Heard, 'bins' | 'energy' | 'directS'>,
  { volume, speed, random }: PulseRequest,
  add: (atS: number, gains: Float64Array, bin: number) => void,
): void {
  const gains = new Float64Array(OCTAVES.length);
  for (let b = 0; b < bins; b++) {
    let some = false;
    for (let o = 0; o < gains.length; o++) some ||= energy[o * bins + b]! > 0;
    if (!some) continue;
    const sinceS = directS + (b + 0.5) * BIN_S;
    const perS = Math.min(DENSE_PER_S, (4 * Math.PI * speed ** 3 * sinceS ** 2) / volume);
    const pulses = Math.max(1, poisson(random, perS * BIN_S));
    for (let i = 0; i < pulses; i++) {
      const sign = random.uniform() < 0.5 ? -1 : 1;
      for (let o = 0; o < gains.length; o++) gains[o] = sign * Math.sqrt(energy[o * bins + b]! / pulses);
      add((b + random.uniform()) * BIN_S, gains, b);
    }
  }
}

/** How many of events that come at random, where `mean` are expected (Knuth). */
export function poisson(random: Random, mean: number): number {
  const least = Math.exp(-mean);
  let count = 0;
  for (let p = random.uniform(); p > least; p *= random.uniform()) count++;
  return count;
}
