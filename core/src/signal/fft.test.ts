import { expect, it } from 'vitest';
import { fftSizeFor, inverseRealFft, realFft, seededRandom } from './index.js';

/** The definition, summed as it stands. */
function plainDft(x: Float64Array, k: number) {
  let [re, im] = [0, 0];
  x.forEach((v, n) => {
    re += v * Math.cos((2 * Math.PI * k * n) / x.length);
    im -= v * Math.sin((2 * Math.PI * k * n) / x.length);
  });
  return [re, im] as const;
}

const noise = (n: number) => {
  const random = seededRandom(n);
  return Float64Array.from({ length: n }, () => random.normal());
};

it.each([4, 8, 16, 32, 128])('equals the plain transform for %i samples', (size) => {
  const x = noise(size);
  const { re, im } = realFft(x);
  for (let k = 0; k <= size / 2; k++) {
    const [wantRe, wantIm] = plainDft(x, k);
    expect(re[k]).toBeCloseTo(wantRe, 10);
    expect(im[k]).toBeCloseTo(wantIm, 10);
  }
});

it.each([4, 64, 4096, 65536])('comes back from the spectrum of %i samples', (size) => {
  const x = noise(size);
  const back = inverseRealFft(realFft(x));
  expect(Math.max(...x.map((v, i) => Math.abs(v - back[i]!)).slice(0, 4096))).toBeLessThan(1e-12);
});

it.each([1 << 15, 1 << 16, 1 << 18])(
  'finds single bins of %i samples where the closed form puts them',
  (size) => {
    // a decaying exponential a^n has the spectrum (1 - a^N) / (1 - a e^{-jw})
    const a = 0.9995;
    const { re, im } = realFft(Float64Array.from({ length: size }, (_, n) => a ** n));
    for (const k of [0, 1, 7, 255, 256, 4097, size / 4, size / 4 + 1, size / 2 - 1, size / 2]) {
      const w = (2 * Math.PI * k) / size;
      const [dr, di] = [1 - a * Math.cos(w), a * Math.sin(w)];
      const top = (1 - a ** size) / (dr * dr + di * di);
      expect(re[k]! - top * dr).toBeCloseTo(0, 8);
      expect(im[k]! + top * di).toBeCloseTo(0, 8);
    }
  },
);

it('pads short signals and refuses long ones and odd sizes', () => {
  expect(realFft(Float64Array.of(1), 8).re).toEqual(new Float64Array(5).fill(1));
  expect(() => realFft(new Float64Array(9), 8)).toThrow(/9 samples do not fit 8/);
  expect(() => realFft(new Float64Array(3), 6)).toThrow(/power of two/);
  expect(() => realFft(new Float64Array(2), 2)).toThrow(/at least 4/);
  expect([1, 2, 3, 1000].map(fftSizeFor)).toEqual([4, 4, 4, 1024]);
});
