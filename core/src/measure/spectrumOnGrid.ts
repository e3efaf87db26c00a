import { fineSpectrum } from '../path/index.js';
import {
  binFrequencies,
  fftSizeOf,
  powerOf,
  smoothPower,
  type ComplexTrace,
  type ImpulseResponse,
} from '../signal/index.js';

/** Power of an impulse response, averaged over 1/`fraction` octave, at the frequencies of a grid (Hz). */
export function powerOnGrid(
  impulse: ImpulseResponse,
  grid: Float64Array,
  fraction = 48,
  spectrum: ComplexTrace = fineSpectrum(impulse),
): Float64Array {
  return smoothPower(binFrequencies(fftSizeOf(spectrum), impulse.rate), powerOf(spectrum), fraction, grid);
}
