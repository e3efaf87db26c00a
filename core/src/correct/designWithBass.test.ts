import { expect, it } from 'vitest';
import { butterworth, biquadTrace, dbOfPower, logGrid, powerOf } from '../signal/index.js';
import { designChannel, designWithBass, measuredChannel, rollOffDb, STARTING_GOAL } from './index.js';

const rate = 48000;
const grid = logGrid();
const lows = logGrid(20, 400, 24);
const through = (kind: 'highpass' | 'lowpass', order: number, frequency: number) =>
  powerOf(biquadTrace(butterworth(kind, order, frequency, rate), grid, rate));
const design = (id: string, power: Float64Array) =>
  designChannel(
    grid,
    {
      ...STARTING_GOAL,
      id,
      target: { ...STARTING_GOAL.target, handles: [{ frequency: 1000, levelDb: 0 }] },
      span: null,
      targetOffsetDb: null,
    },
    measuredChannel(grid, [power, power]),
  );
const main = design('main', through('highpass', 4, 60));
const sub = design(
  'sub',
  through('highpass', 4, 25).map((p, i) => p * through('lowpass', 4, 150)[i]!),
);
/** What both together would be: the low end of the subwoofer, flat above it, 3 dB down by the trim, with seats 1 dB apart. */
const low = rollOffDb({ low: { cornerHz: 25, order: 4 }, high: null }, lows);
const sum = {
  frequency: lows,
  sumDb: low.map((v) => v - 3),
  sumRange: { lowDb: low.map((v) => v - 3.5), highDb: low.map((v) => v - 2.5) },
  trimDb: -3,
  crossoverHz: 80,
};
const withBass = designWithBass(grid, main, sub, sum);
const at = (f: number) => grid.findIndex((g) => g >= f);

it('a channel with its bass is predicted as the sum, at the level that the channel has without its trim', () => {
  for (const f of [30, 50, 80, 150, 190])
    expect(withBass.predicted.averageDb[at(f)]).toBeCloseTo(dbOfPower(1 / (1 + (25 / grid[at(f)]!) ** 8)), 1);
  expect(withBass.predicted.averageDb[at(1000)]).toBe(main.predicted.averageDb[at(1000)]);
  expect(withBass.predicted.highDb[at(50)]! - withBass.predicted.lowDb[at(50)]!).toBeCloseTo(1, 6);
});

it('its target ends where the subwoofers do, and its distance is that of the sum over both spans', () => {
  const own = main.targetDb[at(1000)]!;
  expect(main.targetDb[at(40)]! - own).toBeLessThan(-10);
  expect(Math.abs(withBass.targetDb[at(40)]! - own)).toBeLessThan(0.5);
  expect(withBass.span.from).toBe(sub.span.from);
  expect(withBass.distance.after).toBeLessThan(0.5);
  // a hole where the two cross is a distance, though each by itself is on target
  const hole = { ...sum, sumDb: sum.sumDb.map((v, k) => (lows[k]! > 50 && lows[k]! < 70 ? v - 14 : v)) };
  expect(designWithBass(grid, main, sub, hole).distance.after).toBeGreaterThan(2);
});
