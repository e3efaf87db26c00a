import { describe, expect, it } from 'vitest';
import { exponentialSweep, inverseRealFft, multiplyTraces, realFft, sweepSpectra } from './index.js';

const request = { rate: 48000, from: 20, to: 20000, durationS: 1, levelDbfs: -6 };

describe('exponentialSweep', () => {
  it('is at full level within the band and silent at both ends', () => {
    const sweep = exponentialSweep(request);
    const at = (f: number) => Math.round(sweep.growthS * Math.log(f / sweep.startsAt) * sweep.rate);
    const peak = (from: number, to: number) =>
      sweep.samples.slice(from, to).reduce((most, v) => Math.max(most, Math.abs(v)), 0);
    expect(peak(at(20), at(40))).toBeCloseTo(10 ** (-6 / 20), 3);
    expect(peak(at(15000), at(19900))).toBeCloseTo(10 ** (-6 / 20), 3);
    expect(peak(0, sweep.samples.length)).toBeLessThanOrEqual(10 ** (-6 / 20));
    expect(Math.abs(sweep.samples[0]!)).toBe(0);
    expect(Math.abs(sweep.samples.at(-1)!)).toBeLessThan(1e-4);
  });

  it('has a whole number of starting periods per growth by e, so that harmonics stay synchronised', () => {
    const { startsAt, growthS } = exponentialSweep({ ...request, durationS: 2.3 });
    expect(startsAt * growthS).toBeCloseTo(Math.round(startsAt * growthS), 9);
  });

  it.each([0.7, 1, 5, 20])('lasts the %f s that were asked for and starts below its band', (durationS) => {
    const { samples, startsAt, endsAt } = exponentialSweep({ ...request, durationS });
    expect(samples.length).toBe(durationS * 48000);
    expect(startsAt).toBeLessThan(20 * 0.8);
    expect(endsAt / (20000 * 2 ** (1 / 6))).toBeCloseTo(1, 3);
  });

  it('refuses what cannot be played', () => {
    expect(() => exponentialSweep({ ...request, to: 23900 })).toThrow(/band/);
    expect(() => exponentialSweep({ ...request, from: NaN })).toThrow(/band/);
    expect(() => exponentialSweep({ ...request, durationS: 0 })).toThrow(/duration/);
    expect(() => exponentialSweep({ ...request, levelDbfs: 1 })).toThrow(/level/);
  });
});

it('times its inverse is a band-limited unit impulse: 1 within the band, 0 far outside', () => {
  const sweep = exponentialSweep(request);
  const size = 65536;
  const flat = multiplyTraces(realFft(sweep.samples, size), sweepSpectra(sweep, size).inverse);
  for (let k = 0; k <= size / 2; k++) {
    const f = (k * 48000) / size;
    if (f > 20 && f < 20000) expect(Math.hypot(flat.re[k]! - 1, flat.im[k]!)).toBeLessThan(1e-9);
    if (f < sweep.startsAt || f > sweep.endsAt) expect(Math.hypot(flat.re[k]!, flat.im[k]!)).toBe(0);
  }
  const impulse = inverseRealFft(flat);
  expect(impulse.indexOf(impulse.reduce((a, b) => Math.max(a, b)))).toBe(0);
});
