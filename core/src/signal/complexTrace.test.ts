import { expect, it } from 'vitest';
import { convolve, delayTrace, inverseRealFft, realFft, whiteNoise } from './index.js';

it('delays by whole samples exactly, forth and back', () => {
  const x = whiteNoise(64, 1);
  const later = inverseRealFft(delayTrace(realFft(x), 5));
  x.forEach((v, i) => expect(later[(i + 5) % 64]).toBeCloseTo(v, 9));
});

it('delays a band-limited tone by a fraction', () => {
  const tone = (shift: number) =>
    Float64Array.from({ length: 256 }, (_, i) => Math.sin((2 * Math.PI * 7 * (i - shift)) / 256));
  const got = inverseRealFft(delayTrace(realFft(tone(0)), 0.37));
  tone(0.37).forEach((v, i) => expect(got[i]).toBeCloseTo(v, 10));
  expect(() => delayTrace(realFft(tone(0)), NaN)).toThrow(/finite/);
});

it('convolves like the plain sum', () => {
  const [a, b] = [whiteNoise(37, 2), whiteNoise(12, 3)];
  const got = convolve(a, b);
  expect(got.length).toBe(48);
  got.forEach((v, n) => {
    let sum = 0;
    for (let i = 0; i < 12; i++) sum += b[i]! * (a[n - i] ?? 0);
    expect(v).toBeCloseTo(sum, 10);
  });
  expect(convolve(a, new Float64Array(0)).length).toBe(0);
});
