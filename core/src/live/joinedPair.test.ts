import { expect, it } from 'vitest';
import { logGrid } from '../signal/index.js';
import { joinedPair, type TransferCurve } from './index.js';

const grid = logGrid(20, 20_000, 48);
/** Sums of arrivals: each with its gain and delay. */
const arrivals = (...of: [gain: number, delayS: number][]): TransferCurve => ({
  frequency: grid,
  re: grid.map((f) => of.reduce((s, [g, t]) => s + g * Math.cos(2 * Math.PI * f * t), 0)),
  im: grid.map((f) => of.reduce((s, [g, t]) => s - g * Math.sin(2 * Math.PI * f * t), 0)),
  coherence: grid.map(() => 0.9),
});
const level = ({ re, im }: TransferCurve, hz: number) => {
  const n = grid.findIndex((f) => f >= hz);
  return 20 * Math.log10(Math.hypot(re[n]!, im[n]!));
};

it('is the floor below the crossover, fitted in level and time, and the ear above', () => {
  const ear = arrivals([1, 0.001]);
  const joined = joinedPair(ear, arrivals([2, 0.0004]), 300)!;
  expect(joined.levelDb).toBeCloseTo(-20 * Math.log10(2), 6);
  expect(joined.delayS).toBeCloseTo(0.0006, 6);
  expect(joined.misfitDb).toBeCloseTo(0, 6);
  for (const hz of [40, 290, 310, 5000]) expect(level(joined.curve, hz)).toBeCloseTo(0, 3);
  // and in phase: the curve is the ear's everywhere
  joined.curve.re.forEach((v, n) => expect(v).toBeCloseTo(ear.re[n]!, 2));
});

it('the dip that the floor makes at the ear is gone below the crossover and left above it', () => {
  // a reflection 4 ms later: dips at 125, 375, 625 Hz
  const ear = arrivals([1, 0], [0.9, 0.004]);
  const joined = joinedPair(ear, arrivals([2, 0.0005]), 300)!;
  expect(level(ear, 125)).toBeLessThan(-15);
  expect(level(joined.curve, 125)).toBeCloseTo(20 * Math.log10(2) + joined.levelDb, 6);
  expect(level(joined.curve, 625)).toBeCloseTo(level(ear, 625), 6);
  expect(joined.misfitDb).toBeGreaterThan(2);
  expect(Math.abs(joined.delayS + 0.0005)).toBeLessThan(0.0025);
});

it('what is not known in the overlap makes no pair; what is not known elsewhere stays so', () => {
  const ear = arrivals([1, 0]);
  const without = (from: number, to: number): TransferCurve => ({
    ...ear,
    re: ear.re.map((v, n) => (grid[n]! > from && grid[n]! < to ? NaN : v)),
  });
  expect(joinedPair(ear, without(290, 310), 300)).toBeNull();
  const joined = joinedPair(without(2000, 3000), without(4000, 5000), 300)!;
  const at = (hz: number) => joined.curve.re[grid.findIndex((f) => f > hz)]!;
  expect([at(2500), at(4500)].map(Number.isNaN)).toEqual([true, false]);
  expect(() => joinedPair(ear, ear, 20)).toThrow(/crossover/);
  expect(() => joinedPair(ear, { ...ear, frequency: grid.subarray(1) }, 300)).toThrow(/different grids/);
});
