import { describe, expect, it } from 'vitest';
import {
  biquadSpectrum,
  butterworth,
  filterBiquads,
  linkwitzRiley,
  peaking,
  realFft,
  type Biquad,
} from './index.js';

const rate = 48000;
const size = 48000 / 46.875; // 1024: bins 46.875 Hz apart
const levelAt = (sections: Biquad[], frequency: number) => {
  const { re, im } = biquadSpectrum(sections, size);
  const k = Math.round(frequency / 46.875);
  return 10 * Math.log10(re[k]! ** 2 + im[k]! ** 2);
};
/** |H|^2 of a Butterworth filter after the bilinear transform. */
const analytic = (kind: string, order: number, f: number, f0: number) => {
  const x = Math.tan((Math.PI * f) / rate) / Math.tan((Math.PI * f0) / rate);
  return -10 * Math.log10(1 + x ** (kind === 'lowpass' ? 2 * order : -2 * order));
};

describe.each(['lowpass', 'highpass'] as const)('%s', (kind) => {
  it.each([1, 2, 3, 4, 5, 8])('Butterworth of order %i follows its closed form', (order) => {
    for (const f of [468.75, 937.5, 1500, 3000, 12000]) {
      expect(levelAt(butterworth(kind, order, 1500, rate), f)).toBeCloseTo(analytic(kind, order, f, 1500), 6);
    }
  });
  it.each([2, 4, 8])('Linkwitz-Riley of order %i is 6 dB down at its frequency', (order) => {
    expect(levelAt(linkwitzRiley(kind, order, 1500, rate), 1500)).toBeCloseTo(-6.0206, 4);
  });
});

it('sums a fourth-order Linkwitz-Riley pair to an all-pass', () => {
  const low = biquadSpectrum(linkwitzRiley('lowpass', 4, 1500, rate), size);
  const high = biquadSpectrum(linkwitzRiley('highpass', 4, 1500, rate), size);
  for (let k = 0; k <= size / 2; k++) {
    expect(Math.hypot(low.re[k]! + high.re[k]!, low.im[k]! + high.im[k]!)).toBeCloseTo(1, 9);
  }
});

it('peaks by the gain asked for at the frequency asked for', () => {
  expect(levelAt([peaking(1500, 7, 3, rate)], 1500)).toBeCloseTo(7, 9);
  expect(levelAt([peaking(1500, -7, 3, rate)], 0)).toBeCloseTo(0, 9);
});

it('filters samples to the same response as the closed spectrum', () => {
  const sections = [...butterworth('highpass', 3, 900, rate), peaking(3000, 6, 2, rate)];
  const impulse = new Float64Array(4096);
  impulse[0] = 1;
  const got = realFft(filterBiquads(impulse, sections));
  const want = biquadSpectrum(sections, 4096);
  got.re.forEach((re, k) =>
    expect(Math.hypot(re - want.re[k]!, got.im[k]! - want.im[k]!)).toBeLessThan(1e-9),
  );
});

it('refuses frequencies beyond half the rate and orders it does not know', () => {
  expect(() => peaking(24000, 3, 1, rate)).toThrow(/24000/);
  expect(() => butterworth('lowpass', 9, 100, rate)).toThrow(/order/);
  expect(() => linkwitzRiley('lowpass', 3, 100, rate)).toThrow(/order/);
});
