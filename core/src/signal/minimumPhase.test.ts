import { expect, it } from 'vitest';
import { biquadSpectrum, minimumPhase, peaking, butterworth } from './index.js';

it('gives back the phase of sections that are minimum-phase by construction', () => {
  const sections = [peaking(60, 9, 4, 48000), peaking(1200, -6, 2, 48000), peaking(9000, 4, 1, 48000)];
  const truth = biquadSpectrum(sections, 65536);
  const magnitude = truth.re.map((re, k) => Math.hypot(re, truth.im[k]!));
  const got = minimumPhase(magnitude);
  for (let k = 0; k < magnitude.length; k++) {
    expect(Math.hypot(got.re[k]! - truth.re[k]!, got.im[k]! - truth.im[k]!)).toBeLessThan(2e-4);
  }
});

it('turns a constant into a real constant and refuses zeros', () => {
  const flat = minimumPhase(new Float64Array(17).fill(0.5));
  flat.im.forEach((v) => expect(v).toBeCloseTo(0, 14));
  expect(() => minimumPhase(new Float64Array(17))).toThrow(/bin 0 must be above 0/);
});

it('is causal: a high-pass reconstructed from its magnitude has no phase lead beyond its own', () => {
  const truth = biquadSpectrum(butterworth('lowpass', 2, 200, 48000), 32768);
  const got = minimumPhase(truth.re.map((re, k) => Math.max(1e-9, Math.hypot(re, truth.im[k]!))));
  for (let k = 1; k < 1000; k++) {
    const want = Math.atan2(truth.im[k]!, truth.re[k]!);
    expect(Math.cos(Math.atan2(got.im[k]!, got.re[k]!) - want)).toBeGreaterThan(0.9999);
  }
});
