/** Octaves in which surfaces and air are described: centres in Hz. */
export const OCTAVES = [63, 125, 250, 500, 1000, 2000, 4000, 8000] as const;

/** One value per octave of `OCTAVES`. */
export type PerOctave = readonly number[];

/**
 * Share of each octave at a frequency: raised-cosine cross-fade between neighbouring centres over log frequency, the outer
 * octaves going on; the shares sum to 1, so equal gains in all octaves leave a response untouched.
 * @param out overwritten, 8 values
 */
export function octaveShares(frequency: number, out: Float64Array): Float64Array {
  out.fill(0);
  const x = Math.min(Math.max(Math.log2(Math.max(frequency, 1) / OCTAVES[0]), 0), OCTAVES.length - 1);
  const low = Math.min(Math.floor(x), OCTAVES.length - 2);
  const high = 0.5 - 0.5 * Math.cos(Math.PI * (x - low));
  out[low] = 1 - high;
  out[low + 1] = high;
  return out;
}
