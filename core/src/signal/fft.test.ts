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

it.each([2, 4, 8, 32, 128])('equals the plain transform for %i samples', (size) => {
  const x = noise(size);
  const { re, im } = realFft(x);
  for (let k = 0; k <= size / 2; k++) {
    const [wantRe, wantIm] = plainDft(x, k);
    expect(re[k]).toBeCloseTo(wantRe, 10);
    expect(im[k]).toBeCloseTo(wantIm, 10);
  }
});

it.each([2, 64, 4096, 65536])('comes back from the spectrum of %i samples', (size) => {
  const x = noise(size);
  const back = inverseRealFft(realFft(x));
  expect(Math.max(...x.map((v, i) => Math.abs(v - back[i]!)).slice(0, 4096))).toBeLessThan(1e-12);
});

it('pads short signals and refuses long ones and odd sizes', () => {
  expect(realFft(Float64Array.of(1), 8).re).toEqual(new Float64Array(5).fill(1));
  expect(() => realFft(new Float64Array(9), 8)).toThrow(/9 samples do not fit 8/);
  expect(() => realFft(new Float64Array(3), 6)).toThrow(/power of two/);
  expect([1, 2, 3, 1000].map(fftSizeFor)).toEqual([2, 2, 4, 1024]);
});
