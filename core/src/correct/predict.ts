import {
  binFrequencies,
  convolve,
  dbOfPower,
  fftSizeFor,
  interpolateLog,
  powerOf,
  powerOfDb,
  realFft,
  type ImpulseResponse,
  type RealArray,
} from '../signal/index.js';

/** Predicted power at a spot from its power as found and the gain of a correction; for redrawing while a hand drags. */
export const predictPower = (power: Float64Array, gainDb: Float64Array): Float64Array =>
  power.map((p, i) => p * powerOfDb(gainDb[i]!));

/** Predicted impulse response at a spot: as found, through the filter; the exact one. */
export function predictImpulse({ samples, rate, zero }: ImpulseResponse, fir: RealArray): ImpulseResponse {
  return { samples: convolve(samples, fir), rate, zero };
}

/** Zero-padding to this many samples sets bins 0.37 Hz apart at 48 kHz, so that a straight line joins them. */
const FINE_SIZE = 131072;

/** Level of a filter at given frequencies, dB. */
export function firLevelDb(fir: RealArray, rate: number, at: Float64Array): Float64Array {
  const size = fftSizeFor(Math.max(fir.length, FINE_SIZE));
  const levels = powerOf(realFft(fir, size)).map(dbOfPower);
  return interpolateLog(binFrequencies(size, rate).subarray(1), levels.subarray(1), at);
}
