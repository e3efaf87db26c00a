import { logGrid } from '@pebble-hall/core/signal';
import { describe, expect, it } from 'vitest';
import {
  formatDb,
  formatHz,
  frequencyAt,
  frequencyTicks,
  levelAt,
  levelRange,
  levelTicks,
  nearestIndex,
  xOf,
  yOf,
  zoomed,
  ticksOf,
} from './chartMath';

const view = { fromHz: 20, toHz: 20000, lowDb: -30, highDb: 10, x: 50, y: 10, width: 900, height: 400 };

it('maps frequency and level to pixels and back; a decade is a third of three', () => {
  expect(xOf(view, 20)).toBe(50);
  expect(xOf(view, 200)).toBeCloseTo(350, 9);
  expect(xOf(view, 20000)).toBeCloseTo(950, 9);
  expect(yOf(view, 10)).toBe(10);
  expect(yOf(view, -30)).toBe(410);
  for (const f of [20, 63, 1000, 12345]) expect(frequencyAt(view, xOf(view, f))).toBeCloseTo(f, 6);
  for (const db of [-30, -3.3, 10]) expect(levelAt(view, yOf(view, db))).toBeCloseTo(db, 9);
});

it('labels 1, 2 and 5 of each decade, and every line when zoomed in', () => {
  const { lines, labels } = frequencyTicks(20, 20000);
  expect(labels).toEqual([20, 50, 100, 200, 500, 1000, 2000, 5000, 10000, 20000]);
  expect(lines).toContain(300);
  expect(lines).toHaveLength(28);
  expect(frequencyTicks(60, 95).labels).toEqual([60, 70, 80, 90]);
  expect(levelTicks(-30, 10)).toEqual([-30, -25, -20, -15, -10, -5, 0, 5, 10]);
});

it('writes figures as the trade does', () => {
  expect([63, 1000, 1250, 999.7, 19953, NaN].map(formatHz)).toEqual([
    '63 Hz',
    '1 kHz',
    '1.25 kHz',
    '1 kHz',
    '20 kHz',
    '–',
  ]);
  expect([3.21, -0.04, -12, -Infinity].map((v) => formatDb(v))).toEqual([
    '+3.2 dB',
    '0.0 dB',
    '\u221212.0 dB',
    '–',
  ]);
});

it('finds the nearest point over log frequency', () => {
  const grid = logGrid(20, 20000, 3);
  grid.forEach((f, i) => expect(nearestIndex(grid, f * 1.05)).toBe(i));
  expect(nearestIndex(grid, 1)).toBe(0);
  expect(nearestIndex(grid, 1e6)).toBe(grid.length - 1);
});

describe('levelRange', () => {
  const f = Float64Array.of(20, 100, 1000);
  it('shows everything in whole 5 dB, and keeps the top when it must cut', () => {
    expect(levelRange(f, [Float64Array.of(-12, -50, 1)])).toEqual({ lowDb: -55, highDb: 5 });
    expect(levelRange(f, [Float64Array.of(-12, -150, 1)])).toEqual({ lowDb: -55, highDb: 5 });
  });
  it('shows at least 30 dB, and something for nothing', () => {
    expect(levelRange(f, [Float64Array.of(0, 0, 0)])).toEqual({ lowDb: -25, highDb: 5 });
    expect(levelRange(f, [Float64Array.of(-Infinity, NaN, -Infinity)])).toEqual({ lowDb: -30, highDb: 0 });
  });
});

it('zooms around a frequency and never leaves the band', () => {
  const near = zoomed({ fromHz: 20, toHz: 20000 }, 100, 0.5);
  expect(near.fromHz).toBeGreaterThan(20);
  expect(Math.log(near.toHz / near.fromHz)).toBeCloseTo(Math.log(1000) / 2, 9);
  expect(zoomed(near, 100, 100)).toEqual({ fromHz: expect.closeTo(20, 6), toHz: expect.closeTo(20000, 3) });
  expect(Math.log2(zoomed(near, 100, 1e-6).toHz / zoomed(near, 100, 1e-6).fromHz)).toBeCloseTo(1 / 6, 9);
});

it('ticks of a plain axis are round and cover it', () => {
  expect(ticksOf(0, 475)).toEqual([0, 50, 100, 150, 200, 250, 300, 350, 400, 450]);
  expect(ticksOf(-5, 20)).toEqual([-5, 0, 5, 10, 15, 20]);
  expect(ticksOf(-1.05, 1.05)).toEqual([-1, -0.5, 0, 0.5, 1]);
});
