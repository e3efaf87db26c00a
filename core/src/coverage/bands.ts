import { needWithin } from '../limits/index.js';

/** A band and the frequencies at which it is worked out, with what each counts. */
export interface BandPlan {
  centre: number;
  frequencies: Float64Array;
}

/** Nominal thirds of an octave from 25 Hz to 20 kHz have these exact centres (IEC 61260-1, base 10). */
export const THIRDS: readonly number[] = Array.from({ length: 30 }, (_, i) => 10 ** ((i + 14) / 10));

/**
 * A band as frequencies at equal steps of its logarithm: pink noise in it is the mean of the powers at them.
 * @param width of the band in octaves; 0 for the frequency by itself
 * @param count how many
 */
export function bandPlan(centre: number, width: number, count: number): BandPlan {
  needWithin('bandPlan', 'centre in Hz', centre, 1, 100_000);
  needWithin('bandPlan', 'width in octaves', width, 0, 10);
  needWithin('bandPlan', 'number of frequencies', count, 1, 1000);
  if (width === 0) return { centre, frequencies: Float64Array.of(centre) };
  // octaves of base 10: ten of them are a factor of 1000
  const octave = 10 ** 0.3;
  return {
    centre,
    frequencies: Float64Array.from(
      { length: count },
      (_, i) => centre * octave ** (width * ((i + 0.5) / count - 0.5)),
    ),
  };
}

/** Means of powers over the frequencies of a band, `[point]`. */
export function bandMean(powers: readonly Float64Array[]): Float64Array {
  const out = new Float64Array(powers[0]?.length ?? 0);
  for (const power of powers) for (let p = 0; p < out.length; p++) out[p]! += power[p]! / powers.length;
  return out;
}
