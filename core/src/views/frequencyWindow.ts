import { dbOfPower, type ImpulseResponse } from '../signal/index.js';

/** A window whose sides are so many periods of each frequency long, around a moment (seconds from the response's zero). */
export interface FrequencyWindow {
  centreS: number;
  cycles: number;
  /** no side is longer than this, seconds */
  longestS: number;
}

/**
 * Response with a window that narrows with frequency: at each frequency it is weighted by a Hann window of `cycles` periods
 * either side of the moment, and transformed there, the moment as time zero.
 * @returns both parts at the frequencies of `grid` (Hz)
 * @throws RangeError for less than one cycle
 */
export function windowedResponse(
  { samples, rate, zero }: ImpulseResponse,
  grid: Float64Array,
  { centreS, cycles, longestS }: FrequencyWindow,
): { re: Float64Array; im: Float64Array } {
  if (!(cycles >= 1)) throw new RangeError(`windowedResponse: cycles must be at least 1, got ${cycles}`);
  const centre = zero + centreS * rate;
  const out = { re: new Float64Array(grid.length), im: new Float64Array(grid.length) };
  grid.forEach((f, k) => {
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
    out.re[k] = re;
    out.im[k] = im;
  });
  return out;
}

/** Its level, dB. */
export function windowedLevelDb(
  impulse: ImpulseResponse,
  grid: Float64Array,
  window: FrequencyWindow,
): Float64Array {
  const { re, im } = windowedResponse(impulse, grid, window);
  return re.map((r, k) => dbOfPower(r * r + im[k]! * im[k]!));
}

/** Its phase, degrees from -180 to 180, the moment as time zero. */
export function windowedPhaseDeg(
  impulse: ImpulseResponse,
  grid: Float64Array,
  window: FrequencyWindow,
): Float64Array {
  const { re, im } = windowedResponse(impulse, grid, window);
  return re.map((r, k) => (Math.atan2(im[k]!, r) * 180) / Math.PI);
}
