import {
  binFrequencies,
  fftSizeFor,
  fftSizeOf,
  inverseRealFft,
  realFft,
  type Band,
  type ComplexTrace,
  type RealArray,
} from '../signal/index.js';

/**
 * Magnitude of a Butterworth band-pass of sixth order with its -3 dB corners at the band's edges: slopes steep enough for
 * class 1 (IEC 61260-1:2014).
 * @param f Hz, at least 0
 */
export function bandGain(f: number, { from, to }: Pick<Band, 'from' | 'to'>): number {
  if (!(f > 0)) return 0;
  const detune = (f * f - from * to) / (f * (to - from));
  const squared = detune * detune;
  return 1 / Math.sqrt(1 + squared * squared * squared); // detune to the power of 2 x 3
}

/** A spectrum weighted by the band's magnitude, without phase: arrivals stay where they are. */
export function bandSpectrum(
  { frequency, re, im }: ComplexTrace,
  band: Pick<Band, 'from' | 'to'>,
  rate: number,
): ComplexTrace {
  const gain = binFrequencies(fftSizeOf({ re }), rate).map((f) => bandGain(f, band));
  return { frequency, re: re.map((v, k) => v * gain[k]!), im: im.map((v, k) => v * gain[k]!) };
}

/** Energy of a signal within a band, by Parseval: no filter rings into it or out of it. */
export function octaveEnergy(signal: RealArray, band: Pick<Band, 'from' | 'to'>, rate: number): number {
  const spectrum = realFft(signal, fftSizeFor(Math.max(signal.length, 4096)));
  const size = fftSizeOf(spectrum);
  let sum = 0;
  spectrum.re.forEach((re, k) => {
    const gain = bandGain((k * rate) / size, band);
    const both = k === 0 || k === size / 2 ? 1 : 2;
    sum += both * gain * gain * (re * re + spectrum.im[k]! ** 2);
  });
  return sum / size;
}

/**
 * A signal as heard through each of some bands, as long as it was; zero-padded so that its end does not ring into its start.
 * @param bands at least one
 */
export function bandSignals(
  signal: RealArray,
  bands: Pick<Band, 'from' | 'to'>[],
  rate: number,
): Float64Array[] {
  const narrowest = Math.min(...bands.map(({ from, to }) => to - from));
  const spectrum = realFft(signal, fftSizeFor(signal.length + Math.round((8 / narrowest) * rate)));
  return bands.map((band) => inverseRealFft(bandSpectrum(spectrum, band, rate)).slice(0, signal.length));
}
