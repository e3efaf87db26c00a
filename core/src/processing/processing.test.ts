import { describe, expect, it } from 'vitest';
import { convolve, filterBiquads, linkwitzRiley, peaking } from '../signal/index.js';
import { sumPathsInTime } from '../path/index.js';
import {
  outputSource,
  plainOutput,
  settingChanges,
  type OutputSettings,
  type PlayedOutput,
} from './index.js';

const rate = 48000;
const measured = () => {
  const samples = new Float64Array(6000);
  samples[300] = 1;
  samples[900] = -0.4;
  return { samples, rate, zero: 100 };
};

const predicted = (
  impulse: PlayedOutput['impulse'],
  before: OutputSettings,
  after: OutputSettings,
  fir: Float32Array | null = null,
) => sumPathsInTime([outputSource({ impulse, before, after, fir, feed: null })]);

describe('an output as it is predicted', () => {
  it('is the response through FIR, sections, trim, polarity and delay', () => {
    const section = { kind: 'peak' as const, frequency: 400, gainDb: -5, q: 2 };
    const fir = Float32Array.of(0.5, 0.25);
    const after = { ...plainOutput(), sections: [section], trimDb: -6, inverted: true, delayMs: 2 };
    const got = predicted(measured(), plainOutput(), after, fir);
    const want = filterBiquads(convolve(measured().samples, fir), [peaking(400, -5, 2, rate)]);
    const gain = -(10 ** (-6 / 20));
    want.forEach((v, i) => expect(got.samples[i + 96]).toBeCloseTo(gain * v, 9));
    expect(got.zero).toBe(100);
  });

  it('takes off what the output did while it was measured', () => {
    const low = { kind: 'Linkwitz-Riley' as const, order: 4, frequency: 110 };
    const before = { ...plainOutput(), lowPass: low, trimDb: 3, delayMs: 1 };
    const direct = measured();
    const seen = filterBiquads(direct.samples, linkwitzRiley('lowpass', 4, 110, rate)).map(
      (v) => v * 10 ** (3 / 20),
    );
    const late = new Float64Array(6000);
    late.set(seen.subarray(0, 5952), 48);
    const next = { ...low, frequency: 80 };
    const got = predicted({ samples: late, rate, zero: 0 }, before, { ...plainOutput(), lowPass: next });
    const want = filterBiquads(direct.samples, linkwitzRiley('lowpass', 4, 80, rate));
    const peak = Math.max(...want);
    for (let i = 0; i < 5000; i += 7) expect(Math.abs(got.samples[i]! - want[i]!)).toBeLessThan(0.005 * peak);
  });

  it('gives the high-pass to a small loudspeaker only', () => {
    const high = { kind: 'Butterworth' as const, order: 2, frequency: 80 };
    const sum = (size: 'small' | 'large') =>
      Float64Array.from(
        predicted(measured(), plainOutput(), { ...plainOutput(), size, highPass: high }).samples,
      ).reduce((a, b) => a + b, 0);
    expect(sum('large')).toBeCloseTo(0.6, 6);
    expect(Math.abs(sum('small'))).toBeLessThan(0.02); // nothing at 0 Hz
  });
});

it('names what differs, and nothing else', () => {
  const wanted = [
    { ...plainOutput(), trimDb: -2.5 },
    {
      ...plainOutput(),
      size: 'small' as const,
      lowPass: { kind: 'Linkwitz-Riley' as const, order: 4, frequency: 110 },
    },
  ];
  const found = [plainOutput(), { ...wanted[1]!, lowPass: null, taps: 8192 }];
  expect(settingChanges(wanted, found)).toEqual([
    { output: 1, what: 'trim', wanted: '-2.5 dB', found: '0.0 dB' },
    { output: 2, what: 'low-pass', wanted: 'Linkwitz-Riley 24 dB/octave at 110 Hz', found: 'none' },
  ]);
  expect(settingChanges(wanted, wanted)).toEqual([]);
});

it('values that differ by less than is usually written are told apart, and written so', () => {
  const delayed = (delayMs: number) => [{ ...plainOutput(), delayMs }];
  expect(settingChanges(delayed(5), delayed(5.004))).toEqual([
    { output: 1, what: 'delay', wanted: '5.00 ms', found: '5.004 ms' },
  ]);
  expect(settingChanges(delayed(0.3), delayed(0.1 + 0.2))).toEqual([]);
});
