import { binFrequencies, fftSizeFor, powerOf, realFft, smoothPower, type ImpulseResponse } from '../signal/index.js';

/** Power of an impulse response, averaged over 1/`fraction` octave, at the frequencies of a grid (Hz). */
export function powerOnGrid({ samples, rate }: ImpulseResponse, grid: Float64Array, fraction = 48): Float64Array {
  const size = fftSizeFor(samples.length);
  return smoothPower(binFrequencies(size, rate), powerOf(realFft(samples, size)), fraction, grid);
}
