import { describe, expect, it } from 'vitest';
import { binFrequencies, exponentialSweep, realFft } from '../signal/index.js';
import { deconvolve, impulseFrom, loopbackTime, splitHarmonics } from './index.js';
import { randomSystem, recordThrough } from './testSignals.js';

describe('deconvolve', () => {
  it.each([1, 2, 3])(
    'recovers a known FIR system to -80 dB of its energy within the band (seed %i)',
    (seed) => {
      const system = randomSystem(4000, 200, seed);
      const { sweep, microphone, silenceS } = recordThrough(system);
      const got = realFft(impulseFrom(deconvolve(microphone, sweep, 1 << 18), silenceS * 48000), 1 << 18);
      const want = realFft(system, 1 << 18);
      const frequency = binFrequencies(1 << 18, 48000);
      let [error, energy] = [0, 0];
      frequency.forEach((f, k) => {
        if (f < 20 || f > 20000) return;
        error += (got.re[k]! - want.re[k]!) ** 2 + (got.im[k]! - want.im[k]!) ** 2;
        energy += want.re[k]! ** 2 + want.im[k]! ** 2;
      });
      expect(10 * Math.log10(error / energy)).toBeLessThan(-80);
    },
  );

  it('gives the same response from a transform that the recording does not fit', () => {
    const system = randomSystem(4000, 200, 4);
    const { sweep, microphone, silenceS } = recordThrough(system); // 182400 samples
    const long = impulseFrom(deconvolve(microphone, sweep, 1 << 18), silenceS * 48000);
    const short = impulseFrom(deconvolve(microphone, sweep, 1 << 17), silenceS * 48000);
    for (let i = 0; i < 4200; i++) expect(Math.abs(short[i]! - long[i]!)).toBeLessThan(1e-6);
  });

  it('refuses a recording that is shorter than the sweep', () => {
    const sweep = exponentialSweep({ rate: 48000, from: 20, to: 20000, durationS: 1, levelDbfs: -6 });
    expect(() => deconvolve(new Float64Array(1000), sweep)).toThrow(/1000 samples, the sweep alone 48000/);
  });
});

it.each([0, 100.25, 333.5, 731.9])(
  'finds a loopback latency of %f samples to 1/1000 of a sample',
  (latency) => {
    const { sweep, loopback, silenceS } = recordThrough(Float64Array.of(1), { latency });
    const { samples } = loopbackTime(deconvolve(loopback, sweep, 1 << 18), sweep);
    expect(Math.abs(samples - silenceS * 48000 - latency)).toBeLessThan(0.001);
  },
);

describe('splitHarmonics', () => {
  it('gives the 2nd to 5th harmonic of a polynomial system within 0.2 dB of the analytic level', () => {
    const sweep = exponentialSweep({ rate: 48000, from: 20, to: 20000, durationS: 3, levelDbfs: -6 });
    const a = 10 ** (-6 / 20);
    const [c2, c3, c4, c5] = [0.05, 0.03, 0.02, 0.01];
    const y = sweep.samples.map((x) => x + c2 * x ** 2 + c3 * x ** 3 + c4 * x ** 4 + c5 * x ** 5);
    // sin^k in multiple angles: amplitudes of sin(k w t) over the input's amplitude a
    const want = [
      (c2 * a ** 2) / 2 + (c4 * a ** 4) / 2,
      (c3 * a ** 3) / 4 + (5 * c5 * a ** 5) / 16,
      (c4 * a ** 4) / 8,
      (c5 * a ** 5) / 16,
    ].map((v) => 20 * Math.log10(v / a));
    const recording = new Float64Array(1 << 18);
    recording.set(y, 24000);
    const harmonics = splitHarmonics(impulseFrom(deconvolve(recording, sweep), 24000), sweep);
    expect(harmonics.map((h) => h.order)).toEqual([2, 3, 4, 5]);
    harmonics.forEach(({ frequency, power }, i) => {
      // between where it starts to be whole (order x 20 Hz, plus room for the split) and where aliasing may set in
      const levels = [...power]
        .filter((_, k) => frequency[k]! > 400 && frequency[k]! < 6000)
        .map((p) => 10 * Math.log10(p));
      const mean = levels.reduce((x, v) => x + v) / levels.length;
      expect(Math.abs(mean - want[i]!)).toBeLessThan(0.2);
      levels.forEach((level) => expect(Math.abs(level - want[i]!)).toBeLessThan(0.2));
    });
  });
});
