import { expect, it } from 'vitest';
import { logGrid } from '../signal/index.js';
import { axisTrace, type AxisResponse } from './model.js';

it('a curve on the axis has its level, the least phase, and nothing beyond its ends', () => {
  // one pole at 1 kHz: level and phase are known
  const frequency = logGrid(20, 20_000, 24);
  const levelDb = frequency.map((f) => -10 * Math.log10(1 + (f / 1000) ** 2));
  const axis: AxisResponse = { kind: 'curve', frequency, levelDb };
  const at = Float64Array.of(10, 100, 700, 2000, 30_000);
  const { re, im } = axisTrace(axis, at);
  expect([re[0], im[0], re[4], im[4]]).toEqual([0, 0, 0, 0]);
  for (const n of [1, 2, 3]) {
    const f = at[n]! / 1000;
    expect(20 * Math.log10(Math.hypot(re[n]!, im[n]!))).toBeCloseTo(-10 * Math.log10(1 + f * f), 2);
    // what lies beyond 20 kHz is held, not falling: some degrees of phase
    expect(Math.abs(Math.atan2(im[n]!, re[n]!) + Math.atan(f))).toBeLessThan(0.08 * f + 0.02);
  }
});

it('filters on the axis are theirs', () => {
  const axis: AxisResponse = {
    kind: 'filters',
    low: { frequency: 100, order: 2 },
    high: { frequency: 10_000, order: 2 },
    resonances: [],
  };
  const { re, im } = axisTrace(axis, Float64Array.of(100, 1000));
  expect(20 * Math.log10(Math.hypot(re[0]!, im[0]!))).toBeCloseTo(-3.01, 1);
  expect(Math.hypot(re[1]!, im[1]!)).toBeCloseTo(1, 2);
});
