import {
  dbOfPower,
  powerOf,
  realFft,
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
 * @param taps 16 to 65536; the last half fades out, so that what was cut off does not ripple beyond the span
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
  const bins = binFrequencies(size, rate);
  const asked = interpolateLog(frequency, gainDb, bins);
  // cutting to length smears narrow peaks; what is then missing is asked for on top
  let request = asked;
  for (let round = 0; round < MENDING_ROUNDS; round++) {
    const got = powerOf(realFft(truncated(request, taps), size)).map(dbOfPower);
    request = request.map(
      (g, k) => g + Math.max(-MOST_MENDED_DB, Math.min(MOST_MENDED_DB, asked[k]! - got[k]!)),
    );
  }
  return truncated(request, taps);
}

const MENDING_ROUNDS = 4;
/** More than this is not smearing. */
const MOST_MENDED_DB = 1;

function truncated(levels: Float64Array, taps: number): Float32Array {
  const impulse = inverseRealFft(minimumPhase(levels.map(gainOfDb)));
  const fir = new Float32Array(taps);
  for (let i = 0; i < taps; i++) fir[i] = impulse[i]! * cosineStep(i, taps, taps / 2);
  return fir;
}
