import { describe, expect, it } from 'vitest';
import { biquadTrace, logGrid, peaking } from '../signal/index.js';
import { curvesApart, incoherentStretch } from './readCurves.js';
import { curveGroupDelayS, curveLevelDb, curvePhaseDeg, smoothedCurve } from './shownCurve.js';
import type { TransferCurve } from './transferFunction.js';

const grid = logGrid(20, 20_000, 48);
const curveOf = (
  of: (f: number) => { db?: number; deg?: number; coherence?: number },
  frequency = grid,
): TransferCurve => {
  const points = [...frequency].map((f) => ({ db: 0, deg: 0, coherence: 1, ...of(f) }));
  const gain = (db: number) => 10 ** (db / 20);
  return {
    frequency,
    re: Float64Array.from(points, (p) => gain(p.db) * Math.cos((p.deg * Math.PI) / 180)),
    im: Float64Array.from(points, (p) => gain(p.db) * Math.sin((p.deg * Math.PI) / 180)),
    coherence: Float64Array.from(points, (p) => p.coherence),
  };
};
const at = (f: number) => grid.findIndex((v) => v >= f);

describe('level, phase and group delay of a curve', () => {
  it('are those of a pure delay', () => {
    const delay = 0.0004;
    const curve = curveOf((f) => ({ db: -6, deg: -360 * f * delay }));
    const [level, wrapped] = [curveLevelDb(curve), curvePhaseDeg(curve)];
    const unwrapped = curvePhaseDeg(curve, { isUnwrapped: true, turnDeg: 90 });
    const group = curveGroupDelayS(curve);
    const turns = (unwrapped[at(100)]! - 90 + 360 * grid[at(100)]! * delay) / 360;
    expect(turns).toBeCloseTo(Math.round(turns), 9);
    grid.forEach((f, n) => {
      expect(level[n]).toBeCloseTo(-6, 9);
      expect(Math.abs(wrapped[n]!)).toBeLessThanOrEqual(180);
      // up to where a step of the grid is half a turn
      if (f > 15_000) return;
      expect(unwrapped[n]! - unwrapped[at(100)]!).toBeCloseTo(-360 * (f - grid[at(100)]!) * delay, 6);
      if (n > 0) expect(group[n]).toBeCloseTo(delay, 9);
    });
  });

  it('say nothing where nothing is known, and go on behind it', () => {
    const curve = curveOf((f) => ({ db: f > 200 && f < 300 ? NaN : 3, deg: 40 }));
    expect(curveLevelDb(curve)[at(250)]).toBeNaN();
    expect(curvePhaseDeg(curve, { isUnwrapped: true })[at(5000)]).toBeCloseTo(40, 9);
    expect(smoothedCurve(curve, 3).re[at(250)]).toBeNaN();
    expect(curveLevelDb(smoothedCurve(curve, 3))[at(310)]).toBeCloseTo(3, 9);
  });
});

describe('smoothing', () => {
  it('keeps what is flat, keeps the power of what is not, and the mean phase', () => {
    expect(
      curveLevelDb(
        smoothedCurve(
          curveOf(() => ({ db: 4 })),
          6,
        ),
      )[at(700)],
    ).toBeCloseTo(4, 9);
    const comb = curveOf((f) => ({ db: Math.round(48 * Math.log2(f / 20)) % 2 ? 6 : 0 }));
    const mean = 10 * Math.log10((10 ** 0.6 + 1) / 2);
    expect(curveLevelDb(smoothedCurve(comb, 1))[at(700)]).toBeCloseTo(mean, 1);
    const turning = curveOf((f) => ({ deg: f < 640 ? 20 : 40 }));
    const phase = curvePhaseDeg(smoothedCurve(turning, 1));
    expect(phase[at(638)]).toBeGreaterThan(25);
    expect(phase[at(638)]).toBeLessThan(35);
  });
});

describe('what is read of curves', () => {
  it('tells the widest stretch of noise, not the narrow ones', () => {
    const curve = curveOf((f) => ({
      coherence: (f > 80 && f < 130) || (f > 1000 && f < 1050) || f < 25 ? 0.2 : 0.97,
    }));
    const found = incoherentStretch(curve, { from: 20, to: 16_000 })!;
    expect(found.from).toBeGreaterThan(75);
    expect(found.from).toBeLessThan(90);
    expect(found.to).toBeGreaterThan(120);
    expect(found.to).toBeLessThan(140);
    expect(
      incoherentStretch(
        curveOf(() => ({})),
        { from: 20, to: 16_000 },
      ),
    ).toBeNull();
  });

  it('tells how far two curves lie apart, where both are sure', () => {
    const bump = [peaking(1000, 6, 0.5, 48_000)];
    const trace = biquadTrace(bump, grid, 48_000);
    const a = { ...trace, coherence: grid.map((f) => (f > 4000 ? 0.1 : 1)) };
    const b = curveOf(() => ({ db: -2 }));
    const flat = curvesApart(
      curveOf(() => ({ db: 3 })),
      b,
      { from: 100, to: 5000 },
    )!;
    expect(flat.meanDb).toBeCloseTo(5, 9);
    expect(flat.rmsDb).toBeCloseTo(0, 5);
    expect(flat.share).toBe(1);
    const peaked = curvesApart(a, b, { from: 100, to: 5000 })!;
    expect(peaked.meanDb).toBeGreaterThan(3.5);
    expect(peaked.rmsDb).toBeGreaterThan(1);
    expect(peaked.share).toBeLessThan(0.97);
    expect(curvesApart(a, b, { from: 5000, to: 9000 })).toBeNull();
  });
});
