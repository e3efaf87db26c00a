import {
  convolve,
  dbOfPower,
  fftSizeFor,
  FINE_SIZE,
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

/** Level of a filter at given frequencies (Hz, within the band of its bins), dB; linear over log frequency between bins. */
export function firLevelDb(fir: RealArray, rate: number, at: Float64Array): Float64Array {
  const size = fftSizeFor(Math.max(fir.length, FINE_SIZE));
  const { re, im } = realFft(fir, size);
  const levelOf = (k: number) => dbOfPower(re[k]! * re[k]! + im[k]! * im[k]!);
  const last = size / 2;
  return at.map((f) => {
    const x = (f * size) / rate;
    const k = Math.min(last - 1, Math.max(1, Math.floor(x)));
    const share = Math.min(1, Math.max(0, Math.log(x / k) / Math.log((k + 1) / k)));
    const below = levelOf(k);
    return share === 0 ? below : below + share * (levelOf(k + 1) - below);
  });
}
