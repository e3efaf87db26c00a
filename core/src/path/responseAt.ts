import {
  binFrequencies,
  delayTrace,
  fftSizeFor,
  fftSizeOf,
  FINE_SIZE,
  isBinAxis,
  realFft,
  type ComplexTrace,
  type ImpulseResponse,
} from '../signal/index.js';

/** The spectrum that curves on a grid are read from, from the first sample on: what needs several of them makes it once. */
export const fineSpectrum = ({ samples }: Pick<ImpulseResponse, 'samples'>): ComplexTrace =>
  realFft(samples, fftSizeFor(Math.max(samples.length, FINE_SIZE)));

/**
 * Complex response of an impulse response at given frequencies (Hz), phase from its time zero. Exact at the bins of a
 * transform that holds it; elsewhere read between bins 0.37 Hz apart by linear interpolation, the bulk of the delay
 * taken out ahead.
 */
export function responseAt(
  impulse: ImpulseResponse,
  frequency: Float64Array,
  spectrum?: ComplexTrace,
): ComplexTrace {
  const { samples, rate, zero } = impulse;
  const bins = 2 * (frequency.length - 1);
  if (isBinAxis(frequency) && samples.length <= bins && frequency === binFrequencies(bins, rate)) {
    const exact = realFft(samples, bins, rate);
    return zero === 0 ? exact : delayTrace(exact, -zero / rate);
  }
  const fine = spectrum ?? fineSpectrum(impulse);
  const size = fftSizeOf(fine);
  const [re, im] = [new Float64Array(frequency.length), new Float64Array(frequency.length)];
  const turn = (2 * Math.PI * zero) / size;
  for (let i = 0; i < frequency.length; i++) {
    const x = (frequency[i]! * size) / rate;
    const k = Math.min(Math.floor(x), fine.re.length - 2);
    const t = x - k;
    for (let bin = k; bin <= k + 1; bin++) {
      const weight = bin === k ? 1 - t : t;
      const [c, s] = [Math.cos(turn * bin), Math.sin(turn * bin)];
      re[i] = re[i]! + weight * (fine.re[bin]! * c - fine.im[bin]! * s);
      im[i] = im[i]! + weight * (fine.re[bin]! * s + fine.im[bin]! * c);
    }
  }
  return { frequency, re, im };
}
