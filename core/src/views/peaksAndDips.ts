import { smoothLevels } from '../signal/index.js';

/** A peak or dip of an average. */
export interface Feature {
  frequency: number;
  /** against the surroundings, dB; below 0 for a dip */
  offDb: number;
  /** spots that show it (at least half as strong), of all */
  count: number;
  of: number;
}

/** What stands this far out of its surroundings is told. */
const OFF_DB = 3;
/** A spot has it too when it lies this near, in octaves. */
const NEAR_OCTAVES = 1 / 12;

/**
 * Strongest peaks and dips of the average (1/12 octave) against its surroundings (1/1 octave), and how many spots share
 * each: what they do not share moves from seat to seat.
 * @param spots levels on the log grid, dB, one array for each spot
 * @returns the strongest first
 */
export function peaksAndDips(
  frequency: Float64Array,
  averageDb: Float64Array,
  spots: Float64Array[],
  band: { from: number; to: number },
): Feature[] {
  const standing = (levels: Float64Array) => {
    const fine = smoothLevels(frequency, levels, 12);
    const wide = smoothLevels(frequency, levels, 1);
    return fine.map((v, i) => v - wide[i]!);
  };
  const average = standing(averageDb);
  const each = spots.map(standing);
  const reach = Math.round(NEAR_OCTAVES * 48);
  const found: Feature[] = [];
  frequency.forEach((f, i) => {
    const off = average[i]!;
    if (f < band.from || f > band.to || Math.abs(off) < OFF_DB) return;
    const sign = Math.sign(off);
    for (let j = Math.max(0, i - reach); j <= Math.min(frequency.length - 1, i + reach); j++)
      if (average[j]! * sign > off * sign || (average[j] === off && j < i)) return;
    const shows = (levels: Float64Array) =>
      levels.subarray(Math.max(0, i - reach), i + reach + 1).some((v) => v * sign > 0.5 * off * sign);
    found.push({ frequency: f, offDb: off, count: each.filter(shows).length, of: spots.length });
  });
  return found.sort((a, b) => Math.abs(b.offDb) - Math.abs(a.offDb));
}
