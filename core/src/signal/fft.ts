import { needAbove, needWhole, needWithin } from '../limits/index.js';
import QuickLRU from 'quick-lru';
import type { ComplexTrace, RealArray } from './types.js';

/** One pass of the transform: butterflies of `radix` over sub-transforms `length` long, `stride` of them side by side. */
interface Pass {
  radix: 2 | 4;
  length: number;
  stride: number;
  /** e^{-2 pi j p k / length} for k = 1 to radix - 1 in a row, re and im side by side, for every p below length / radix */
  twiddles: Float64Array;
}

/** Tables and working arrays of one size. A transform runs to its end before another begins, so they are shared. */
interface Plan {
  passes: Pass[];
  work: [Float64Array, Float64Array];
  /** cos and -sin of 2 pi k / size for bins 0 to size/4 */
  cosine: Float64Array;
  sine: Float64Array;
}

/** So many sizes are kept; a plan of 2^19 takes 17 MB. */
const plans = new QuickLRU<number, Plan>({ maxSize: 10 });
const axes = new QuickLRU<string, Float64Array>({ maxSize: 24 });
const binAxes = new WeakSet<Float64Array>();

function planOf(size: number): Plan {
  if (!(size >= 4) || (size & (size - 1)) !== 0) {
    throw new RangeError(`fft: size must be a power of two, at least 4, got ${size}`);
  }
  let plan = plans.get(size);
  if (!plan) {
    const quarter = size / 4 + 1;
    const [cosine, sine] = [new Float64Array(quarter), new Float64Array(quarter)];
    for (let k = 0; k < quarter; k++) {
      cosine[k] = Math.cos((2 * Math.PI * k) / size);
      sine[k] = -Math.sin((2 * Math.PI * k) / size);
    }
    plan = {
      passes: passesOf(size / 2),
      work: [new Float64Array(size), new Float64Array(size)],
      cosine,
      sine,
    };
    plans.set(size, plan);
  }
  return plan;
}

function passesOf(n: number): Pass[] {
  const passes: Pass[] = [];
  for (let length = n, stride = 1; length > 1;) {
    const radix = length === 2 ? 2 : 4; // where the number of bits is odd, the last pass is of radix 2

    const count = length / radix;
    const twiddles = new Float64Array(2 * (radix - 1) * count);
    for (let p = 0, i = 0; p < count; p++) {
      for (let k = 1; k < radix; k++) {
        const angle = (-2 * Math.PI * p * k) / length;
        twiddles[i++] = Math.cos(angle);
        twiddles[i++] = Math.sin(angle);
      }
    }
    passes.push({ radix, length, stride, twiddles });
    length /= radix;
    stride *= radix;
  }
  return passes;
}

/**
 * Complex transform by Stockham's passes, which sort as they go (Van Loan 1992, 1.7): all reading and writing is in rows.
 * @param input n complex values, re and im side by side; not altered
 * @returns one of the two working arrays
 */
function transform({ passes, work: [a, b] }: Plan, input: RealArray): RealArray {
  let [from, to, spare]: [RealArray, Float64Array, Float64Array] = [input, a, b];
  if (input === a) [to, spare] = [b, a];
  for (const pass of passes) {
    passOf(pass)(pass, from, to);
    const written = to;
    to = spare;
    spare = written;
    from = written;
  }
  return from;
}

/** The first and the last pass have a shape of their own: rows of one value, and nothing that turns. */
const passOf = ({ radix, length, stride }: Pass) =>
  radix === 2 ? passOf2 : length === 4 ? lastPassOf4 : stride === 1 ? firstPassOf4 : passOf4;

function firstPassOf4({ length, twiddles }: Pass, x: RealArray, y: Float64Array): void {
  const quarter = length / 2;
  for (let i0 = 0, w = 0, o = 0; i0 < quarter; i0 += 2, w += 6, o += 8) {
    const i1 = i0 + quarter;
    const i2 = i1 + quarter;
    const i3 = i2 + quarter;
    const ar = x[i0]!;
    const ai = x[i0 + 1]!;
    const br = x[i1]!;
    const bi = x[i1 + 1]!;
    const cr = x[i2]!;
    const ci = x[i2 + 1]!;
    const dr = x[i3]!;
    const di = x[i3 + 1]!;
    const acr = ar + cr;
    const aci = ai + ci;
    const bdr = br + dr;
    const bdi = bi + di;
    const ecr = ar - cr;
    const eci = ai - ci;
    const fr = bi - di; // -j (b - d)
    const fi = dr - br;
    y[o] = acr + bdr;
    y[o + 1] = aci + bdi;
    const s1r = ecr + fr;
    const s1i = eci + fi;
    y[o + 2] = twiddles[w]! * s1r - twiddles[w + 1]! * s1i;
    y[o + 3] = twiddles[w]! * s1i + twiddles[w + 1]! * s1r;
    const s2r = acr - bdr;
    const s2i = aci - bdi;
    y[o + 4] = twiddles[w + 2]! * s2r - twiddles[w + 3]! * s2i;
    y[o + 5] = twiddles[w + 2]! * s2i + twiddles[w + 3]! * s2r;
    const s3r = ecr - fr;
    const s3i = eci - fi;
    y[o + 6] = twiddles[w + 4]! * s3r - twiddles[w + 5]! * s3i;
    y[o + 7] = twiddles[w + 4]! * s3i + twiddles[w + 5]! * s3r;
  }
}

function lastPassOf4({ stride }: Pass, x: RealArray, y: Float64Array): void {
  const row = 2 * stride;
  for (let i0 = 0; i0 < row; i0 += 2) {
    const i1 = i0 + row;
    const i2 = i1 + row;
    const i3 = i2 + row;
    const acr = x[i0]! + x[i2]!;
    const aci = x[i0 + 1]! + x[i2 + 1]!;
    const bdr = x[i1]! + x[i3]!;
    const bdi = x[i1 + 1]! + x[i3 + 1]!;
    const ecr = x[i0]! - x[i2]!;
    const eci = x[i0 + 1]! - x[i2 + 1]!;
    const fr = x[i1 + 1]! - x[i3 + 1]!; // -j (b - d)
    const fi = x[i3]! - x[i1]!;
    y[i0] = acr + bdr;
    y[i0 + 1] = aci + bdi;
    y[i1] = ecr + fr;
    y[i1 + 1] = eci + fi;
    y[i2] = acr - bdr;
    y[i2 + 1] = aci - bdi;
    y[i3] = ecr - fr;
    y[i3 + 1] = eci - fi;
  }
}

function passOf4({ length, stride, twiddles }: Pass, x: RealArray, y: Float64Array): void {
  const count = length / 4;
  const row = 2 * stride;
  const quarter = row * count;
  for (let p = 0, w = 0, read = 0, write = 0; p < count; p++, w += 6, read += row, write += 4 * row) {
    const w1r = twiddles[w]!;
    const w1i = twiddles[w + 1]!;
    const w2r = twiddles[w + 2]!;
    const w2i = twiddles[w + 3]!;
    const w3r = twiddles[w + 4]!;
    const w3i = twiddles[w + 5]!;
    for (let q = 0; q < row; q += 2) {
      const i0 = read + q;
      const i1 = i0 + quarter;
      const i2 = i1 + quarter;
      const i3 = i2 + quarter;
      const ar = x[i0]!;
      const ai = x[i0 + 1]!;
      const br = x[i1]!;
      const bi = x[i1 + 1]!;
      const cr = x[i2]!;
      const ci = x[i2 + 1]!;
      const dr = x[i3]!;
      const di = x[i3 + 1]!;
      const acr = ar + cr;
      const aci = ai + ci;
      const bdr = br + dr;
      const bdi = bi + di;
      const ecr = ar - cr;
      const eci = ai - ci;
      const fr = bi - di; // -j (b - d)
      const fi = dr - br;
      const o0 = write + q;
      const o1 = o0 + row;
      const o2 = o1 + row;
      const o3 = o2 + row;
      y[o0] = acr + bdr;
      y[o0 + 1] = aci + bdi;
      const s1r = ecr + fr;
      const s1i = eci + fi;
      y[o1] = w1r * s1r - w1i * s1i;
      y[o1 + 1] = w1r * s1i + w1i * s1r;
      const s2r = acr - bdr;
      const s2i = aci - bdi;
      y[o2] = w2r * s2r - w2i * s2i;
      y[o2 + 1] = w2r * s2i + w2i * s2r;
      const s3r = ecr - fr;
      const s3i = eci - fi;
      y[o3] = w3r * s3r - w3i * s3i;
      y[o3 + 1] = w3r * s3i + w3i * s3r;
    }
  }
}

/** The last pass of an odd number of bits: its rows are half the transform, and nothing turns. */
function passOf2({ stride }: Pass, x: RealArray, y: Float64Array): void {
  const half = 2 * stride;
  for (let i = 0; i < half; i++) {
    const a = x[i]!;
    const b = x[i + half]!;
    y[i] = a + b;
    y[i + half] = a - b;
  }
}

/** Longest transform: more samples than memory holds of anything that is measured. */
const MOST_SIZE = 2 ** 30;

/** Smallest power of two that is at least `length` (and at least 4). */
export function fftSizeFor(length: number): number {
  needWithin('fftSizeFor', 'length', length, 0, MOST_SIZE);
  let size = 4;
  while (size < length) size *= 2;
  return size;
}

/** Samples of the signal that a spectrum of `realFft` is of. */
export const fftSizeOf = ({ re }: Pick<ComplexTrace, 're'>): number => 2 * (re.length - 1);

/**
 * Frequency of each bin of a real signal's spectrum, 0 to rate/2: size/2 + 1 values. The same array for the same size and
 * rate, not to be written to.
 */
export function binFrequencies(size: number, rate: number): Float64Array {
  needWhole('binFrequencies', 'size', size, 2, MOST_SIZE);
  needAbove('binFrequencies', 'rate', rate, 0);
  const key = `${size} ${rate}`;
  let axis = axes.get(key);
  if (!axis) {
    axis = new Float64Array(size / 2 + 1);
    for (let k = 0; k < axis.length; k++) axis[k] = (k * rate) / size;
    binAxes.add(axis);
    axes.set(key, axis);
  }
  return axis;
}

/** Zero-padding to this many samples sets bins 0.37 Hz apart at 48 kHz, finer than 1/48 octave from 26 Hz on: a straight line joins them. */
export const FINE_SIZE = 131072;

/** Whether frequencies are the bins of a transform, evenly apart from 0 to half the rate. */
export const isBinAxis = (frequency: Float64Array): boolean => binAxes.has(frequency);

/** A spectrum of zeros at the bins of a size. */
export function emptySpectrum(size: number, rate = 1): ComplexTrace {
  const frequency = binFrequencies(size, rate);
  return { frequency, re: new Float64Array(frequency.length), im: new Float64Array(frequency.length) };
}

/**
 * Spectrum of a real signal, zero-padded to `size`, through a complex transform of half the size (Press et al.,
 * Numerical Recipes, 12.3).
 * @param size power of two, at least the signal's length
 * @param rate of the signal; the frequencies are in its unit: Hz, or cycles per sample where it is 1
 * @param out overwritten and returned, where an array of that size is at hand
 * @throws RangeError when the signal is longer than `size` or `size` is no power of two
 */
export function realFft(
  signal: RealArray,
  size = fftSizeFor(signal.length),
  rate = 1,
  out: ComplexTrace = emptySpectrum(size, rate),
): ComplexTrace {
  if (signal.length > size) throw new RangeError(`realFft: ${signal.length} samples do not fit ${size}`);
  const plan = planOf(size);
  let packed: RealArray = signal;
  if (signal.length < size) {
    packed = plan.work[0];
    packed.set(signal);
    packed.fill(0, signal.length);
  }
  const z = transform(plan, packed);
  const { re, im } = out;
  const { cosine, sine } = plan;
  const m = size / 2;
  re[0] = z[0]! + z[1]!;
  im[0] = 0;
  re[m] = z[0]! - z[1]!;
  im[m] = 0;
  for (let k = 1; k <= m / 2; k++) {
    const j = m - k;
    const evenRe = 0.5 * (z[2 * k]! + z[2 * j]!);
    const evenIm = 0.5 * (z[2 * k + 1]! - z[2 * j + 1]!);
    const oddRe = 0.5 * (z[2 * k + 1]! + z[2 * j + 1]!);
    const oddIm = 0.5 * (z[2 * j]! - z[2 * k]!);
    const rotatedRe = cosine[k]! * oddRe - sine[k]! * oddIm;
    const rotatedIm = cosine[k]! * oddIm + sine[k]! * oddRe;
    re[k] = evenRe + rotatedRe;
    im[k] = evenIm + rotatedIm;
    re[j] = evenRe - rotatedRe;
    im[j] = rotatedIm - evenIm;
  }
  return out;
}

/**
 * Real signal of a spectrum at the bins of a size; inverse of `realFft`, scaled so that there and back gives the signal.
 * The imaginary parts of bin 0 and bin size/2 are ignored, as a real signal has none.
 * @param out overwritten and returned, where an array of `size` samples is at hand
 * @throws RangeError when the bins are not size/2 + 1 of a power of two
 */
export function inverseRealFft(
  { re, im }: Pick<ComplexTrace, 're' | 'im'>,
  out: Float64Array = new Float64Array(2 * (re.length - 1)),
): Float64Array {
  const m = re.length - 1;
  const size = 2 * m;
  if (im.length !== m + 1 || out.length !== size) {
    throw new RangeError(
      `inverseRealFft: ${re.length} bins want as many imaginary parts and ${size} samples, got ${im.length} and ${out.length}`,
    );
  }
  const plan = planOf(size);
  const { cosine, sine } = plan;
  // re and im change places on the way in and out: the forward transform is then the inverse one (Duhamel et al. 1988)
  const z = plan.work[0];
  const scale = 1 / m;
  z[0] = 0.5 * scale * (re[0]! - re[m]!);
  z[1] = 0.5 * scale * (re[0]! + re[m]!);
  const half = 0.5 * scale;
  for (let k = 1; k <= m / 2; k++) {
    const j = m - k;
    const evenRe = half * (re[k]! + re[j]!);
    const evenIm = half * (im[k]! - im[j]!);
    const rotatedRe = half * (re[k]! - re[j]!);
    const rotatedIm = half * (im[k]! + im[j]!);
    const oddRe = cosine[k]! * rotatedRe + sine[k]! * rotatedIm;
    const oddIm = cosine[k]! * rotatedIm - sine[k]! * rotatedRe;
    z[2 * k] = evenIm + oddRe;
    z[2 * k + 1] = evenRe - oddIm;
    z[2 * j] = oddRe - evenIm;
    z[2 * j + 1] = evenRe + oddIm;
  }
  const y = transform(plan, z);
  for (let i = 0; i < size; i += 2) {
    out[i] = y[i + 1]!;
    out[i + 1] = y[i]!;
  }
  return out;
}
