import { dbOfPower, type ImpulseResponse } from '../signal/index.js';

/** A window whose sides are so many periods of each frequency long, around a moment (seconds from the response's zero). */
export interface FrequencyWindow {
  centreS: number;
  cycles: number;
  /** no side is longer than this, seconds */
  longestS: number;
}

/**
 * Level with a window that narrows with frequency: at each frequency the response is weighted by a Hann window of
 * `cycles` periods either side of the moment, and transformed there.
 * @returns dB at the frequencies of `grid` (Hz)
 * @throws RangeError for less than one cycle
 */
export function windowedLevelDb(
  { samples, rate, zero }: ImpulseResponse,
  grid: Float64Array,
  { centreS, cycles, longestS }: FrequencyWindow,
): Float64Array {
  if (!(cycles >= 1)) throw new RangeError(`windowedLevelDb: cycles must be at least 1, got ${cycles}`);
  const centre = zero + centreS * rate;
  return grid.map((f) => {
    const side = Math.min(longestS, cycles / f) * rate;
    const from = Math.max(0, Math.ceil(centre - side));
    const to = Math.min(samples.length - 1, Math.floor(centre + side));
    const w = (2 * Math.PI * f) / rate;
    let [re, im] = [0, 0];
    for (let i = from; i <= to; i++) {
      const weight = 0.5 + 0.5 * Math.cos((Math.PI * (i - centre)) / side);
      re += weight * samples[i]! * Math.cos(w * (i - centre));
      im -= weight * samples[i]! * Math.sin(w * (i - centre));
    }
    return dbOfPower(re * re + im * im);
  });
}
