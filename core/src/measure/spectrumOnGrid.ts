import {
  binFrequencies,
  fftSizeFor,
  powerOf,
  realFft,
  smoothPower,
  type ImpulseResponse,
} from '../signal/index.js';

/** Zero-padding to this many samples sets bins 0.37 Hz apart at 48 kHz: finer than 1/48 octave from 26 Hz on. */
const FINE_SIZE = 131072;

/** Power of an impulse response, averaged over 1/`fraction` octave, at the frequencies of a grid (Hz). */
export function powerOnGrid(
  { samples, rate }: ImpulseResponse,
  grid: Float64Array,
  fraction = 48,
): Float64Array {
  const size = fftSizeFor(Math.max(samples.length, FINE_SIZE));
  return smoothPower(binFrequencies(size, rate), powerOf(realFft(samples, size)), fraction, grid);
}
