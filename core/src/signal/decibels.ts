import type { ComplexTrace } from './types.js';

/** Amplitude factor of a level: 10^(dB/20). */
export const gainOfDb = (levelDb: number): number => 10 ** (levelDb / 20);

/** Level of an amplitude factor, 20 lg |g|; -Infinity for 0. */
export const dbOfGain = (gain: number): number => 20 * Math.log10(Math.abs(gain));

/** Level of a power factor, 10 lg p; -Infinity for 0, NaN for negative power. */
export const dbOfPower = (power: number): number => 10 * Math.log10(power);

/** Power factor of a level: 10^(dB/10). */
export const powerOfDb = (levelDb: number): number => 10 ** (levelDb / 10);

/**
 * Level of a response at each of its frequencies, 20 lg |H|.
 * @param out overwritten and returned; hand one in where a live path must not allocate
 * @returns dB re 1, as long as `frequency`; -Infinity where H is 0, NaN where H is NaN
 * @throws RangeError when the lengths differ
 */
export function levelDb({ frequency, re, im }: ComplexTrace, out = new Float64Array(frequency.length)) {
  const n = frequency.length;
  if (re.length !== n || im.length !== n || out.length !== n) {
    throw new RangeError(
      `levelDb: ${n} frequencies, but ${re.length} re, ${im.length} im, ${out.length} out`,
    );
  }
  for (let i = 0; i < n; i++) out[i] = 10 * Math.log10(re[i]! ** 2 + im[i]! ** 2);
  return out;
}
