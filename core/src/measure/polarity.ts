import {
  fftSizeFor,
  inverseRealFft,
  minimumPhase,
  powerOf,
  realFft,
  type ImpulseResponse,
} from '../signal/index.js';
import { windowImpulse } from './timeWindow.js';

/** Which way round a loudspeaker moves, and when its sound arrives. */
export interface Polarity {
  reversed: boolean;
  /** how much better this sign fits than the other one: 1 is none at all; below 1.1 nothing can be said */
  certainty: number;
  /** seconds from the response's zero to the arrival of its minimum-phase equivalent, so without its own group delay */
  arrivalS: number;
}

/** A response's early part: this long in the lows (two periods of 40 Hz), and where a loudspeaker plays higher. */
const LOW_S = 0.05;
const FULL_S = 0.006;
/** Bands that end below this are a subwoofer's. */
const LOW_HZ = 400;
const FLOOR_DB = -40;

/**
 * Polarity of a response: its direct part is laid over the minimum-phase response of the same magnitude, which starts
 * upwards for a loudspeaker that moves outwards; where the two agree best gives the sign, and the time of arrival.
 * @param impulse time zero is when the loudspeaker was driven
 * @param onsetS from `findArrival`
 * @param band in which the channel plays, Hz
 * @returns null when the response is empty within the band
 */
export function findPolarity(
  impulse: ImpulseResponse,
  onsetS: number,
  band: { from: number; to: number },
): Polarity | null {
  const { rate } = impulse;
  const isLow = band.to < LOW_HZ;
  const lengthS = isLow ? LOW_S : FULL_S;
  const leftS = isLow ? 0.012 : 0.002;
  const early = windowImpulse(impulse, { centreS: onsetS, leftS, rightS: lengthS });
  const from = Math.max(0, Math.round((onsetS - leftS) * rate) + impulse.zero);
  const piece = Float64Array.from(
    early.samples.subarray(from, from + Math.round((leftS + lengthS) * rate) + 1),
  );
  const size = 8 * fftSizeFor(piece.length);
  const spectrum = realFft(piece, size);
  const power = powerOf(spectrum);
  // outside the channel's own band there is noise, whose magnitude would distort the equivalent: weight it down smoothly
  const weight = (f: number) =>
    1 / Math.sqrt((1 + (band.from / 1.5 / Math.max(f, 1e-3)) ** 8) * (1 + (f / (band.to * 1.5)) ** 8));
  let top = 0;
  for (let k = 1; k < power.length; k++) top = Math.max(top, power[k]! * weight((k * rate) / size) ** 2);
  if (!(top > 0)) return null;
  const floor = top * 10 ** (FLOOR_DB / 10);
  const magnitude = power.map((p, k) => Math.sqrt(Math.max(p * weight((k * rate) / size) ** 2, floor)));
  const equivalent = minimumPhase(magnitude);
  // cross-correlation: conj(minimum phase) times the weighted piece
  const { re, im } = spectrum;
  const cross = { re: new Float64Array(re.length), im: new Float64Array(re.length) };
  for (let k = 0; k < re.length; k++) {
    const w = weight((k * rate) / size);
    cross.re[k] = w * (re[k]! * equivalent.re[k]! + im[k]! * equivalent.im[k]!);
    cross.im[k] = w * (im[k]! * equivalent.re[k]! - re[k]! * equivalent.im[k]!);
  }
  const correlation = inverseRealFft(cross);
  let [up, down] = [0, 0];
  for (let i = 0; i < piece.length; i++) {
    if (correlation[i]! > correlation[up]!) up = i;
    if (correlation[i]! < correlation[down]!) down = i;
  }
  const [high, low] = [Math.max(0, correlation[up]!), Math.max(0, -correlation[down]!)];
  const reversed = low > high;
  const at = reversed ? down : up;
  return {
    reversed,
    certainty: Math.max(high, low) / Math.max(1e-30, Math.min(high, low)),
    arrivalS: (from + at - impulse.zero) / rate,
  };
}
