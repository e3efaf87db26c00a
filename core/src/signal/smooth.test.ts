import { describe, expect, it } from 'vitest';
import { binFrequencies, logGrid, octaveBands, smoothLevels, smoothPower, smoothVariable } from './index.js';

/** The mean of f^slope over b octaves around f, by the integral: f^slope * sinh(slope b ln2 / 2) / (slope b ln2 / 2). */
const powerLaw = (f: number, slope: number, octaves: number) => {
  const x = (slope * octaves * Math.LN2) / 2;
  return f ** slope * (x === 0 ? 1 : Math.sinh(x) / x);
};

describe.each([1, 3, 6, 12, 48])('1/%i octave', (fraction) => {
  it.each([-2, 0, 1, 4])('averages power ~ f^%f as the integral says, on the grid and on bins', (slope) => {
    const grid = logGrid(5, 23000, 96);
    const onGrid = smoothPower(
      grid,
      grid.map((f) => f ** slope),
      fraction,
    );
    const bins = binFrequencies(65536, 48000);
    const onBins = smoothPower(
      bins,
      bins.map((f) => f ** slope),
      fraction,
      grid,
    );
    grid.forEach((f, i) => {
      if (f < 100 || f > 15000) return; // bands that reach past the ends are shortened
      const want = powerLaw(f, slope, 1 / fraction);
      expect(onGrid[i]! / want).toBeCloseTo(1, 2);
      expect(onBins[i]! / want).toBeCloseTo(1, 2);
    });
  });
});

it('keeps a constant and the energy of a single line', () => {
  const grid = logGrid();
  smoothPower(grid, new Float64Array(grid.length).fill(3), 3).forEach((p) => expect(p).toBeCloseTo(3, 12));
  const line = new Float64Array(grid.length);
  line[200] = 1;
  const sum = smoothPower(grid, line, 6).reduce((a, b) => a + b);
  expect(sum).toBeCloseTo(1, 2); // every point is shared out among its neighbours
});

it('does not lose a deep notch beside a high peak to rounding', () => {
  const grid = logGrid();
  const power = grid.map((f) => (f < 1000 ? 1e12 : 1e-3));
  const smooth = smoothPower(grid, power, 48);
  expect(smooth.at(-1)! / 1e-3).toBeCloseTo(1, 6);
});

it('smooths levels as power: +10 and -inf dB alternating give +7 dB', () => {
  const grid = logGrid(20, 20000, 192);
  const levels = grid.map((_, i) => (i % 2 ? 10 : -Infinity));
  expect(smoothLevels(grid, levels, 1)[grid.length >> 1]).toBeCloseTo(6.99, 1);
});

it('refuses what it cannot smooth', () => {
  const grid = logGrid();
  expect(() => smoothPower(grid, grid, 0)).toThrow(/fraction must be 1 to 48, got 0/);
  expect(() => smoothPower(grid, new Float64Array(2), 3)).toThrow(/frequencies, but 2 powers/);
});

it('lays out grids and bands of IEC 61260-1', () => {
  const third = octaveBands(3, 25, 16000);
  expect(third.length).toBe(29);
  expect(third.map((b) => Math.round(b.centre * 10) / 10)).toContain(31.6);
  expect(third.find((b) => Math.abs(b.centre - 1000) < 1)!.from).toBeCloseTo(891.25, 2);
  third.slice(1).forEach((band, i) => expect(band.from).toBeCloseTo(third[i]!.to, 9));
  const grid = logGrid(20, 20000, 48);
  expect(grid.length).toBe(480); // k from ceil(160 lg 0.02) = -271 to floor(160 lg 20) = 208
  expect(Array.from(grid)).toContain(1000);
  expect(grid[48 + 1]! / grid[1]!).toBeCloseTo(10 ** 0.3, 12);
});

it('variable smoothing keeps a narrow peak in the lows and averages it in the highs; what is flat stays', () => {
  const grid = logGrid();
  const peak = (f0: number) => grid.map((f) => (Math.abs(Math.log2(f / f0)) < 1 / 96 ? 12 : 0));
  const most = (f0: number) => Math.max(...smoothVariable(grid, peak(f0)));
  expect(most(50)).toBeCloseTo(12, 0);
  // one point of 48 in an octave, over a third of an octave: 16 points, 12 dB is 15.8 times the power
  expect(most(12000)).toBeCloseTo(10 * Math.log10(1 + 14.85 / 16), 0);
  smoothVariable(grid, new Float64Array(grid.length)).forEach((v) => expect(v).toBeCloseTo(0, 9));
});
