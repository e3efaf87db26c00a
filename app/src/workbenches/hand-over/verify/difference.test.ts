import { logGrid } from '@pebble-hall/core/signal';
import { describe, expect, it } from 'vitest';
import { notJudged } from './compareLoad';
import { differenceOf } from './difference';

const grid = logGrid();
const span = { from: 100, to: 10000 };
const margins = (of: (f: number) => number) =>
  [25, 50, 100, 200, 400, 800, 1600, 3150, 6300, 12500].map((centre) => ({
    centre,
    noiseDb: -90,
    signalDb: 0,
    snrDb: of(centre),
  }));
const level = (of: (f: number) => number, above: (f: number) => number = () => 80) => ({
  levelDb: grid.map(of),
  margins: margins(above),
});
const predicted = grid.map(() => -10);
const found = level(() => -14);

describe('verified against predicted', () => {
  it('finds the largest difference within the span only, and its mean square', () => {
    const verified = level((f) => (f > 900 && f < 1100 ? -9 : f < 40 ? 20 : -10));
    const got = differenceOf(grid, predicted, found, verified, span);
    expect(got.worstDb).toBeCloseTo(1, 1);
    expect(got.worstAt / 1000).toBeCloseTo(1, 1);
    expect(got.rmsDb).toBeGreaterThan(0.1);
    expect(got.rmsDb).toBeLessThan(0.4);
    expect(got).toMatchObject({ agrees: false, unjudged: 0 });
  });

  it('counts as true within half a decibel', () => {
    const verified = (db: number) => level(() => -10 + db);
    expect(differenceOf(grid, predicted, found, verified(-0.45), span).agrees).toBe(true);
    expect(differenceOf(grid, predicted, found, verified(0.55), span).agrees).toBe(false);
  });

  it('allows for what noise can move, of both sweeps', () => {
    // 30 dB above the noise: 20 lg (1 + 10^-1.5) = 0.27 dB
    const near = (db: number) =>
      differenceOf(
        grid,
        predicted,
        level(
          () => -14,
          () => 30,
        ),
        level(
          () => -10 + db,
          () => 30,
        ),
        span,
      );
    expect(near(0.9).noiseDb).toBeCloseTo(0.54, 2);
    expect(near(0.9).agrees).toBe(true);
    expect(near(1.1).agrees).toBe(false);
  });

  it('does not judge what hardly stands above the noise, says how much that is, and still judges the rest', () => {
    const lows = (f: number) => (f < 300 ? 5 : 80);
    const verified = level((f) => (f < 150 ? -4 : -10.2), lows);
    const got = differenceOf(grid, predicted, found, verified, span);
    expect(got.agrees).toBe(true);
    expect(got.worstDb).toBeCloseTo(-0.2, 1);
    expect(got.unjudged).toBeGreaterThan(1); // from 100 Hz to some way from 200 to 400 Hz
    expect(got.unjudged).toBeLessThan(2);
  });

  it('gives RMS and largest difference over the same part', () => {
    const lows = (f: number) => (f < 300 ? 5 : 80);
    const verified = level((f) => (f < 150 ? -4 : -10.2), lows);
    const { rmsDb, worstDb } = differenceOf(grid, predicted, found, verified, span);
    expect(rmsDb).toBeLessThanOrEqual(Math.abs(worstDb) + 1e-9);
  });

  it('is no judgement where less than half of the span stands clear, and says how much louder it takes', () => {
    const near = level(
      () => -10,
      (f) => (f > 6000 ? 40 : 8),
    );
    const got = differenceOf(grid, predicted, found, near, span);
    expect(got).toMatchObject({ agrees: false, isJudged: false });
    expect(got.raiseDb).toBeCloseTo(12, 0); // from 8 to 20 dB
    expect(got.octaves).toBeCloseTo(Math.log2(100), 1);
    expect(notJudged(got, -40)).toBe('not judged: too near the noise, measure at \u221228 dBFS');
    expect(notJudged(got, -12)).toMatch(/louder, or with longer sweeps/);
  });

  it('never calls true what is all noise', () => {
    const verified = level(
      () => -10,
      () => 3,
    );
    expect(differenceOf(grid, predicted, found, verified, span)).toMatchObject({ agrees: false, noiseDb: 0 });
  });
});
