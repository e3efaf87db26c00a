import {
  binFrequencies,
  fftSizeFor,
  powerOf,
  realFft,
  smoothPower,
  type HalfSpectrum,
  type ImpulseResponse,
} from '../signal/index.js';

/** Zero-padding to this many samples sets bins 0.37 Hz apart at 48 kHz: finer than 1/48 octave from 26 Hz on. */
const FINE_SIZE = 131072;

/** The spectrum that curves on a grid are read from: what needs several of them makes it once. */
export const fineSpectrum = ({ samples }: Pick<ImpulseResponse, 'samples'>): HalfSpectrum =>
  realFft(samples, fftSizeFor(Math.max(samples.length, FINE_SIZE)));

/** Power of an impulse response, averaged over 1/`fraction` octave, at the frequencies of a grid (Hz). */
export function powerOnGrid(
  impulse: ImpulseResponse,
  grid: Float64Array,
  fraction = 48,
  spectrum: HalfSpectrum = fineSpectrum(impulse),
): Float64Array {
  return smoothPower(binFrequencies(spectrum.size, impulse.rate), powerOf(spectrum), fraction, grid);
}
