import type { HalfSpectrum } from './types.js';

function sameSize(who: string, a: HalfSpectrum, b: HalfSpectrum) {
  if (a.size !== b.size)
    throw new RangeError(`${who}: spectra of ${a.size} and ${b.size} samples do not match`);
}

/** Product of two spectra of one size: convolution in time, circular over `size`. */
export function multiplySpectra(a: HalfSpectrum, b: HalfSpectrum): HalfSpectrum {
  sameSize('multiplySpectra', a, b);
  const bins = a.re.length;
  const re = new Float64Array(bins);
  const im = new Float64Array(bins);
  for (let k = 0; k < bins; k++) {
    const [ar, ai, br, bi] = [a.re[k]!, a.im[k]!, b.re[k]!, b.im[k]!];
    re[k] = ar * br - ai * bi;
    im[k] = ar * bi + ai * br;
  }
  return { size: a.size, re, im };
}

/**
 * The same signal later by `delay` samples (may be fractional or negative; circular over `size`).
 * The bin at half the rate keeps only its real part, as a real signal demands.
 */
export function delaySpectrum({ size, re, im }: HalfSpectrum, delay: number): HalfSpectrum {
  if (!Number.isFinite(delay)) throw new RangeError(`delaySpectrum: delay must be finite, got ${delay}`);
  const bins = re.length;
  const outRe = new Float64Array(bins);
  const outIm = new Float64Array(bins);
  const [stepC, stepS] = [Math.cos((-2 * Math.PI * delay) / size), Math.sin((-2 * Math.PI * delay) / size)];
  let c = 1;
  let s = 0;
  for (let k = 0; k < bins; k++) {
    if (k % 64 === 0) {
      // stepping on from bin to bin is quick, and set right again before rounding adds up
      const phase = (-2 * Math.PI * k * delay) / size;
      c = Math.cos(phase);
      s = Math.sin(phase);
    }
    outRe[k] = re[k]! * c - im[k]! * s;
    outIm[k] = re[k]! * s + im[k]! * c;
    const next = c * stepC - s * stepS;
    s = c * stepS + s * stepC;
    c = next;
  }
  outIm[bins - 1] = 0;
  return { size, re: outRe, im: outIm };
}

/** |X|^2 of each bin. */
export function powerOf({ re, im }: { re: Float64Array; im: Float64Array }): Float64Array {
  const out = new Float64Array(re.length);
  for (let k = 0; k < out.length; k++) out[k] = re[k]! ** 2 + im[k]! ** 2;
  return out;
}
