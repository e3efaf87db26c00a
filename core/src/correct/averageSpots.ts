import { dbOfPower, smoothPower } from '../signal/index.js';

/** What several spots have in common and how far they differ, on one frequency grid; all in dB. */
export interface SpotAverage {
  averageDb: Float64Array;
  /** quietest and loudest spot at each frequency: the seat range */
  lowDb: Float64Array;
  highDb: Float64Array;
  /** standard deviation over the spots of their levels, smoothed by 1/6 octave; 0 for a single spot */
  standardDeviationDb: Float64Array;
}

/**
 * Power average over spots with weights, and the seat range.
 * @param powers one array per spot, each as long as `frequency`
 * @param weights one per spot, at least one above 0; a spot of weight 0 is left out of everything; equal when not given
 * @throws RangeError for no spots, differing lengths, or weights that leave nothing
 */
export function averagePower(
  frequency: Float64Array,
  powers: Float64Array[],
  weights?: number[],
): Omit<SpotAverage, 'standardDeviationDb'> {
  const n = frequency.length;
  const weight = (i: number) => weights?.[i] ?? 1;
  const used = powers.filter((_, i) => weight(i) > 0);
  if (used.length === 0) throw new RangeError('averagePower: no spot with a weight above 0');
  if (powers.some((p) => p.length !== n)) throw new RangeError(`averagePower: every spot needs ${n} values`);
  const total = powers.reduce((sum, _, i) => sum + weight(i), 0);
  const at = (value: (k: number) => number) => Float64Array.from(frequency, (_, k) => value(k));
  return {
    averageDb: at((k) => dbOfPower(powers.reduce((sum, p, i) => sum + weight(i) * p[k]!, 0) / total)),
    lowDb: at((k) => dbOfPower(Math.min(...used.map((p) => p[k]!)))),
    highDb: at((k) => dbOfPower(Math.max(...used.map((p) => p[k]!)))),
  };
}

/** `averagePower`, and how far the spots deviate from each other. */
export function averageSpots(
  frequency: Float64Array,
  powers: Float64Array[],
  weights?: number[],
): SpotAverage {
  const average = averagePower(frequency, powers, weights);
  const used = powers.filter((_, i) => (weights?.[i] ?? 1) > 0);
  const smooth = used.map((p) => smoothPower(frequency, p, 6));
  const standardDeviationDb = Float64Array.from(frequency, (_, k) => {
    const levels = smooth.map((p) => dbOfPower(p[k]!));
    const mean = levels.reduce((a, b) => a + b) / levels.length;
    return Math.sqrt(levels.reduce((sum, level) => sum + (level - mean) ** 2, 0) / levels.length);
  });
  return { ...average, standardDeviationDb };
}
