import {
  biquadSpectrum,
  convolve,
  dbOfGain,
  dbOfPower,
  fftSizeFor,
  filterBiquads,
  gainOfDb,
  inverseRealFft,
  multiplySpectra,
  powerOf,
  realFft,
  type Biquad,
  type RealArray,
} from '../signal/index.js';

/** What a channel's chain is made of. */
export interface Chain {
  fir: RealArray | null;
  sections: Biquad[];
  trimDb: number;
}

/** What a chain does to a steady tone at most. */
export interface LargestTone {
  /** largest gain at any frequency, dB; the frequencies between bins are found by a parabola */
  toneDb: number;
  /** where that is, Hz */
  atHz: number;
}

export interface Headroom extends LargestTone {
  /** largest peak that full scale can become in the worst case, between samples too, dB: the sum of |h| at four times the rate */
  worstPeakDb: number;
}

const FINE_SIZE = 131072;
/** Samples are looked at this many times as densely, as true peaks are (ITU-R BS.1770-4, annex 2). */
const OVERSAMPLED = 4;

/** What a chain asks of headroom. `rate` in Hz. */
export function headroomOf(chain: Chain, rate: number): Headroom {
  const spectrum = spectrumOf(chain);
  return {
    ...toneOf(spectrum, chain.trimDb, rate),
    worstPeakDb: dbOfGain(sumOfParts(spectrum) * gainOfDb(chain.trimDb)),
  };
}

/** The same for steady tones alone, which takes a fifth of the time. */
export const largestTone = (chain: Chain, rate: number): LargestTone =>
  toneOf(spectrumOf(chain), chain.trimDb, rate);

/**
 * What each of several chains does at most to the sum of feeds that carry the same steady tone at full scale at once.
 * @returns one for each chain, in their order
 */
export function largestOfSum(feeds: Chain[], chains: Chain[], rate: number): LargestTone[] {
  const size = Math.max(...[...feeds, ...chains].map(sizeOf));
  const sum = { size, re: new Float64Array(size / 2 + 1), im: new Float64Array(size / 2 + 1) };
  for (const feed of feeds) {
    const { re, im } = spectrumOf(feed, size);
    const gain = gainOfDb(feed.trimDb);
    for (let k = 0; k < re.length; k++) {
      sum.re[k] = sum.re[k]! + gain * re[k]!;
      sum.im[k] = sum.im[k]! + gain * im[k]!;
    }
  }
  return chains.map((chain) => toneOf(multiplySpectra(spectrumOf(chain, size), sum), chain.trimDb, rate));
}

type Spectrum = ReturnType<typeof realFft>;

type Filters = Pick<Chain, 'fir' | 'sections'>;
const sizeOf = ({ fir }: Filters): number => fftSizeFor(Math.max(2 * (fir?.length ?? 1), FINE_SIZE));

function spectrumOf({ fir, sections }: Filters, size = sizeOf({ fir, sections })): Spectrum {
  const spectrum = biquadSpectrum(sections, size);
  return fir ? multiplySpectra(spectrum, realFft(fir, size)) : spectrum;
}

function toneOf(spectrum: Spectrum, trimDb: number, rate: number): LargestTone {
  const levels = powerOf(spectrum).map(dbOfPower);
  let top = 0;
  for (let k = 1; k < levels.length; k++) if (levels[k]! > levels[top]!) top = k;
  const [a, b, c] = [levels[top - 1] ?? -Infinity, levels[top]!, levels[top + 1] ?? -Infinity];
  const bend = a - 2 * b + c;
  const shift = Number.isFinite(bend) && bend < 0 ? (0.5 * (a - c)) / bend : 0;
  return {
    toneDb: b - 0.25 * (Number.isFinite(bend) ? a - c : 0) * shift + trimDb,
    atHz: ((top + shift) * rate) / spectrum.size,
  };
}

/** Sum of |h| of the impulse response, made denser by zero-padding its spectrum. */
function sumOfParts({ size, re, im }: Spectrum): number {
  const wide = OVERSAMPLED * size;
  const [wideRe, wideIm] = [new Float64Array(wide / 2 + 1), new Float64Array(wide / 2 + 1)];
  wideRe.set(re);
  wideIm.set(im);
  const dense = inverseRealFft({ size: wide, re: wideRe, im: wideIm });
  // each of the four interleaved responses is what one phase between the samples gives; the largest of them counts
  const sums = new Float64Array(OVERSAMPLED);
  dense.forEach((v, i) => (sums[i % OVERSAMPLED] = sums[i % OVERSAMPLED]! + OVERSAMPLED * Math.abs(v)));
  return Math.max(...sums);
}

/** A signal through a chain. */
export function throughChain(signal: RealArray, { fir, sections, trimDb }: Chain): Float64Array {
  const filtered = filterBiquads(fir ? convolve(signal, fir) : signal, sections);
  const gain = gainOfDb(trimDb);
  return filtered.map((v) => gain * v);
}
