import { describe, expect, it } from 'vitest';
import { bandMean, bandPlan, THIRDS } from './bands.js';
import { evenedOut, gridOver, levelFigures, rowsApartDb } from './grid.js';
import { crossings, isoLines } from './isoLines.js';

const square = [
  { x: 0, y: 0 },
  { x: 20, y: 0 },
  { x: 20, y: 10 },
  { x: 0, y: 10 },
];
const grid = gridOver([square], () => 1.2, 5000);
const over = (value: (x: number, y: number) => number) =>
  Float64Array.from({ length: grid.columns * grid.rows }, (_, i) =>
    value(grid.points[3 * i]!, grid.points[3 * i + 1]!),
  );

describe('grid', () => {
  it('lies over the surface at equal steps, with its height', () => {
    expect(grid.columns * grid.rows).toBeGreaterThan(4800);
    expect(grid.columns / grid.rows).toBeCloseTo(2, 1);
    expect(grid.points[2]).toBe(1.2);
    expect(grid.isIn.every((v) => v === 1)).toBe(true);
    const triangle = gridOver([square.slice(0, 3)], ({ x }) => 0.1 * x, 2000);
    const inside = triangle.isIn.reduce((sum, v) => sum + v, 0);
    expect(inside / triangle.isIn.length).toBeCloseTo(0.5, 1);
  });

  it('refuses a surface of no area', () => {
    expect(() => gridOver([[square[0]!, square[1]!, { x: 5, y: 0 }]], () => 0, 100)).toThrow(/no area/);
    expect(() => gridOver([], () => 0, 100)).toThrow(/no surface/);
  });
});

describe('evened out', () => {
  it('an even level stays, a fine pattern becomes the mean of its powers', () => {
    expect(
      [
        ...evenedOut(
          grid,
          over(() => 80),
          0.8,
        ),
      ].every((v) => Math.abs(v - 80) < 1e-9),
    ).toBe(true);
    const fine = over(() => 0).map((_, i) =>
      ((i % grid.columns) + Math.floor(i / grid.columns)) % 2 === 0 ? 80 : 60,
    );
    const mean = 10 * Math.log10((1e8 + 1e6) / 2);
    const middle = Math.floor(grid.rows / 2) * grid.columns + Math.floor(grid.columns / 2);
    expect(Math.abs(evenedOut(grid, fine, 0.8)[middle]! - mean)).toBeLessThan(0.2);
    // a slow slope keeps its place
    const slope = over((x) => 90 - x);
    expect(Math.abs(evenedOut(grid, slope, 0.8)[middle]! - slope[middle]!)).toBeLessThan(0.1);
  });

  it('a radius below the step changes nothing', () => {
    const levels = over((x, y) => x * y);
    expect(evenedOut(grid, levels, 0.01)).toBe(levels);
  });
});

describe('lines', () => {
  it('where two sources are equally loud: a circle of Apollonius', () => {
    // 20 lg(r2 / r1) = 6 dB: points with r2 = 2 r1 of (5, 5) and (11, 5) lie on a circle about (3, 5) of radius 4
    const [line, ...rest] = isoLines(
      grid,
      over((x, y) => 20 * Math.log10(Math.hypot(x - 11, y - 5) / Math.hypot(x - 5, y - 5))),
      20 * Math.log10(2),
    );
    expect(rest).toHaveLength(0);
    for (const { x, y } of line!) expect(Math.hypot(x - 3, y - 5)).toBeCloseTo(4, 1);
    expect(line!.length).toBeGreaterThan(60);
  });

  it('where two sources arrive together: a hyperbola, within a hundredth of the grid step', () => {
    // 2 m nearer to (4, 5) than to (16, 5)
    const lines = isoLines(
      grid,
      over((x, y) => Math.hypot(x - 16, y - 5) - Math.hypot(x - 4, y - 5)),
      2,
    );
    expect(lines).toHaveLength(1);
    for (const { x, y } of lines[0]!)
      expect(Math.abs(Math.hypot(x - 16, y - 5) - Math.hypot(x - 4, y - 5) - 2)).toBeLessThan(0.002);
  });

  it('is closed where it lies within, and keeps saddles apart', () => {
    const [ring] = isoLines(
      grid,
      over((x, y) => Math.hypot(x - 10, y - 5)),
      3,
    );
    expect(ring![0]).toEqual(ring!.at(-1));
    const saddle = isoLines(
      grid,
      over((x, y) => (x - 10) * (y - 5)),
      0.5,
    );
    expect(saddle).toHaveLength(2);
    for (const { x, y } of saddle.flat()) expect((x - 10) * (y - 5)).toBeCloseTo(0.5, 1);
  });

  it('two lines cross where both hold', () => {
    const down = isoLines(
      grid,
      over((x) => x),
      7.25,
    );
    const along = isoLines(
      grid,
      over((x, y) => y - 0.5 * x),
      0,
    );
    const places = crossings(down, along);
    expect(places).toHaveLength(1);
    expect(places[0]!.x).toBeCloseTo(7.25, 9);
    expect(places[0]!.y).toBeCloseTo(3.625, 9);
  });

  it('passes over what is no number', () => {
    expect(
      isoLines(
        grid,
        over(() => NaN),
        0,
      ),
    ).toEqual([]);
  });
});

describe('bands', () => {
  it('thirty thirds from 25 Hz to 20 kHz, base 10', () => {
    expect(THIRDS).toHaveLength(30);
    expect(THIRDS[0]).toBeCloseTo(25.12, 2);
    expect(THIRDS[16]).toBeCloseTo(1000, 9);
    expect(THIRDS.at(-1)).toBeCloseTo(19952.6, 1);
  });

  it('frequencies of a band lie within it, at equal steps of its logarithm, their powers averaged', () => {
    const { frequencies } = bandPlan(1000, 1 / 3, 5);
    expect(frequencies[2]).toBeCloseTo(1000, 9);
    expect(frequencies[0]).toBeGreaterThan(10 ** 2.95);
    expect(frequencies[4]).toBeLessThan(10 ** 3.05);
    expect([...bandPlan(80, 0, 5).frequencies]).toEqual([80]);
    expect([...bandMean([Float64Array.of(1, 4), Float64Array.of(3, 0)])]).toEqual([2, 2]);
  });
});

it('figures over seats: mean, deviation, extremes, and the middle four fifths', () => {
  const levels = Array.from({ length: 11 }, (_, i) => 80 + i);
  const figures = levelFigures(levels)!;
  expect(figures).toMatchObject({ count: 11, meanDb: 85, leastDb: 80, mostDb: 90 });
  expect(figures.middleDb).toBeCloseTo(8, 12);
  expect(figures.standardDeviationDb).toBeCloseTo(Math.sqrt(10), 12);
  expect(levelFigures([])).toBeNull();
});

it('rows are apart by the means of their seats, and seats of none do not count', () => {
  const of = (row: string | null, ...levels: number[]) => levels.map((db) => ({ row, db }));
  expect(rowsApartDb([...of('1', 80, 82), ...of('2', 78, 78, 75), ...of(null, 20)])).toBeCloseTo(4, 12);
  expect(rowsApartDb(of('1', 80, 70))).toBeNull();
  expect(rowsApartDb([...of('1', 80), ...of('2', -Infinity)])).toBeNull();
});
