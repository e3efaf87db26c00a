// The plain way that ours is measured against: a complex transform of half the size by a well-kept package, and arrays of its own
// for every call (Press et al., Numerical Recipes, 12.3).
import FFT from 'fft.js';

/** @param {number} size power of two */
export function plainTransform(size) {
  const half = new FFT(size / 2);
  const m = size / 2;
  const cosine = Float64Array.from({ length: size / 4 + 1 }, (_, k) => Math.cos((2 * Math.PI * k) / size));
  const sine = Float64Array.from({ length: size / 4 + 1 }, (_, k) => -Math.sin((2 * Math.PI * k) / size));
  const at = (/** @type {Float64Array} */ x, /** @type {number} */ i) => x[i] ?? 0;
  return {
    /** @param {Float64Array} signal `size` samples */
    forward(signal) {
      const z = new Float64Array(size);
      half.transform(z, signal);
      const re = new Float64Array(m + 1);
      const im = new Float64Array(m + 1);
      re[0] = at(z, 0) + at(z, 1);
      re[m] = at(z, 0) - at(z, 1);
      for (let k = 1; k <= m / 2; k++) {
        const j = m - k;
        const evenRe = 0.5 * (at(z, 2 * k) + at(z, 2 * j));
        const evenIm = 0.5 * (at(z, 2 * k + 1) - at(z, 2 * j + 1));
        const oddRe = 0.5 * (at(z, 2 * k + 1) + at(z, 2 * j + 1));
        const oddIm = 0.5 * (at(z, 2 * j) - at(z, 2 * k));
        const rotatedRe = at(cosine, k) * oddRe - at(sine, k) * oddIm;
        const rotatedIm = at(cosine, k) * oddIm + at(sine, k) * oddRe;
        re[k] = evenRe + rotatedRe;
        im[k] = evenIm + rotatedIm;
        re[j] = evenRe - rotatedRe;
        im[j] = rotatedIm - evenIm;
      }
      return { re, im };
    },
    /** @param {{ re: Float64Array, im: Float64Array }} spectrum size/2 + 1 bins */
    inverse({ re, im }) {
      const z = new Float64Array(size);
      z[0] = 0.5 * (at(re, 0) + at(re, m));
      z[1] = 0.5 * (at(re, 0) - at(re, m));
      for (let k = 1; k <= m / 2; k++) {
        const j = m - k;
        const evenRe = 0.5 * (at(re, k) + at(re, j));
        const evenIm = 0.5 * (at(im, k) - at(im, j));
        const rotatedRe = 0.5 * (at(re, k) - at(re, j));
        const rotatedIm = 0.5 * (at(im, k) + at(im, j));
        const oddRe = at(cosine, k) * rotatedRe + at(sine, k) * rotatedIm;
        const oddIm = at(cosine, k) * rotatedIm - at(sine, k) * rotatedRe;
        z[2 * k] = evenRe - oddIm;
        z[2 * k + 1] = evenIm + oddRe;
        z[2 * j] = evenRe + oddIm;
        z[2 * j + 1] = oddRe - evenIm;
      }
      const signal = new Float64Array(size);
      half.inverseTransform(signal, z);
      return signal;
    },
  };
}
