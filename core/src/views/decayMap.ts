import {
  fftSizeFor,
  fftSizeOf,
  inverseRealFft,
  octaveBands,
  realFft,
  type ComplexTrace,
  type ImpulseResponse,
} from '../signal/index.js';

/** Energy over time and frequency. */
export interface DecayMap {
  /** Hz, 1/6 octave apart */
  frequency: Float64Array;
  /** seconds after the response's zero */
  timeS: Float64Array;
  /** dB re the loudest cell; row by row, a row for each frequency */
  levelDb: Float32Array;
  /** power of the loudest cell, dB re 1 */
  loudestDb: number;
}

export interface DecayMapRequest {
  fromHz: number;
  toHz: number;
  fromS: number;
  toS: number;
  stepS: number;
}

/** Width of a Gaussian band (standard deviation) against its centre: 1/6 octave wide at half its power. */
const RELATIVE_WIDTH = 0.0695;

/**
 * Envelope of the response in Gaussian bands 1/6 octave wide (a constant-Q analysis: as fine in time as it may be for its
 * width in frequency), the analytic signal of each squared.
 */
export function decayMap(
  { samples, rate, zero }: ImpulseResponse,
  { fromHz, toHz, fromS, toS, stepS }: DecayMapRequest,
): DecayMap {
  const frequency = Float64Array.from(octaveBands(6, fromHz, toHz), (b) => b.centre);
  const steps = Math.floor((toS - fromS) / stepS) + 1;
  const timeS = Float64Array.from({ length: steps }, (_, i) => fromS + i * stepS);
  const levelDb = new Float32Array(frequency.length * steps);
  const size = fftSizeFor(samples.length + Math.round(0.25 * rate)); // the lowest band rings before the start
  const spectrum = realFft(samples, size);
  let most = 0;
  frequency.forEach((centre, row) => {
    const envelope = squaredEnvelope(spectrum, centre, rate);
    for (let i = 0; i < steps; i++) {
      const at = zero + Math.round(timeS[i]! * rate);
      const energy = at >= 0 && at < samples.length ? envelope(at) : 0;
      levelDb[row * steps + i] = energy;
      most = Math.max(most, energy);
    }
  });
  for (let i = 0; i < levelDb.length; i++) levelDb[i] = 10 * Math.log10(levelDb[i]! / most + 1e-12);
  return { frequency, timeS, levelDb, loudestDb: 10 * Math.log10(most) };
}

/** Squared envelope of a Gaussian band, at any sample. */
function squaredEnvelope({ re, im }: ComplexTrace, centre: number, rate: number): (at: number) => number {
  const size = fftSizeOf({ re });
  const sigma = RELATIVE_WIDTH * centre;
  const [bandRe, bandIm] = [new Float64Array(re.length), new Float64Array(re.length)];
  const [turnRe, turnIm] = [new Float64Array(re.length), new Float64Array(re.length)];
  const low = Math.max(1, Math.floor(((centre - 5 * sigma) * size) / rate));
  const high = Math.min(re.length - 2, Math.ceil(((centre + 5 * sigma) * size) / rate));
  for (let k = low; k <= high; k++) {
    const gain = Math.exp(-0.5 * (((k * rate) / size - centre) / sigma) ** 2);
    bandRe[k] = gain * re[k]!;
    bandIm[k] = gain * im[k]!;
    turnRe[k] = bandIm[k]!;
    turnIm[k] = -bandRe[k]!;
  }
  const x = inverseRealFft({ re: bandRe, im: bandIm });
  const y = inverseRealFft({ re: turnRe, im: turnIm });
  return (at) => x[at]! ** 2 + y[at]! ** 2;
}
