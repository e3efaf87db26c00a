import { expect, it } from 'vitest';
import { logGrid } from '../signal/index.js';
import { averageSpots } from './index.js';

const grid = logGrid(100, 1000, 24);
const flat = (power: number) => new Float64Array(grid.length).fill(power);

it('averages power, not decibels', () => {
  const { averageDb, lowDb, highDb } = averageSpots(grid, [flat(1), flat(9)]);
  expect(averageDb[10]).toBeCloseTo(10 * Math.log10(5), 10);
  expect([lowDb[10], highDb[10]]).toEqual([0, 10 * Math.log10(9)]);
});

it('weighs spots, and leaves those of weight 0 out of the seat range too', () => {
  const { averageDb, highDb } = averageSpots(grid, [flat(1), flat(4), flat(100)], [3, 1, 0]);
  expect(averageDb[0]).toBeCloseTo(10 * Math.log10(7 / 4), 10);
  expect(highDb[0]).toBeCloseTo(10 * Math.log10(4), 10);
});

it('gives the standard deviation in dB: levels 0 and 6 dB deviate by 3 dB', () => {
  const { standardDeviationDb } = averageSpots(grid, [flat(1), flat(10 ** 0.6)]);
  standardDeviationDb.forEach((s) => expect(s).toBeCloseTo(3, 9));
  averageSpots(grid, [flat(2)]).standardDeviationDb.forEach((s) => expect(s).toBe(0));
});

it('refuses nothing to average', () => {
  expect(() => averageSpots(grid, [])).toThrow(/no spot/);
  expect(() => averageSpots(grid, [flat(1)], [0])).toThrow(/no spot/);
  expect(() => averageSpots(grid, [flat(1), new Float64Array(3)])).toThrow(/every spot needs/);
});
