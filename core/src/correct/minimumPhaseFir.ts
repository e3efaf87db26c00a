import {
  binFrequencies,
  cosineStep,
  fftSizeFor,
  gainOfDb,
  interpolateLog,
  inverseRealFft,
  minimumPhase,
} from '../signal/index.js';

/**
 * Minimum-phase FIR filter with a given gain over frequency.
 * @param frequency log grid, Hz; beyond its ends the outer gains go on
 * @param gainDb as long as `frequency`, finite
 * @param taps 16 to 65536; the last eighth fades out
 * @returns taps in single precision, as a processor stores them
 * @throws RangeError for a count of taps or a gain out of range
 */
export function minimumPhaseFir(
  frequency: Float64Array,
  gainDb: Float64Array,
  taps: number,
  rate: number,
): Float32Array {
  if (!(Number.isInteger(taps) && taps >= 16 && taps <= 65536)) {
    throw new RangeError(`minimumPhaseFir: taps must be 16 to 65536, got ${taps}`);
  }
  const bad = gainDb.findIndex((g) => !Number.isFinite(g));
  if (bad >= 0) throw new RangeError(`minimumPhaseFir: gain at ${frequency[bad]} Hz is ${gainDb[bad]}`);
  const size = fftSizeFor(8 * taps);
  const magnitude = interpolateLog(frequency, gainDb, binFrequencies(size, rate)).map(gainOfDb);
  const impulse = inverseRealFft(minimumPhase(magnitude));
  const fir = new Float32Array(taps);
  for (let i = 0; i < taps; i++) fir[i] = impulse[i]! * cosineStep(i, taps, (taps * 7) / 8);
  return fir;
}
