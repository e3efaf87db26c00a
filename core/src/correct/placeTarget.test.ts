import { describe, expect, it } from 'vitest';
import { logGrid } from '../signal/index.js';
import { placeTarget } from './placeTarget.js';

const grid = logGrid();
const flat = grid.map(() => 0);
const span = { from: 40, to: 16000 };

describe('the level of a target', () => {
  it('is that of the response where it has the shape already', () => {
    const shape = grid.map((f) => -3 * Math.log2(f / 1000));
    expect(
      placeTarget(
        grid,
        shape.map((v) => v - 12.5),
        shape,
        span,
      ),
    ).toBeCloseTo(-12.5, 2);
  });

  it('moves with the response', () => {
    const level = grid.map((f) => 4 * Math.sin(5 * Math.log2(f)));
    const placed = placeTarget(grid, level, flat, span);
    expect(
      placeTarget(
        grid,
        level.map((v) => v + 7),
        flat,
        span,
      ),
    ).toBeCloseTo(placed + 7, 9);
  });

  it('leaves a twentieth of the span below it: peaks are cut, dips hardly filled', () => {
    const level = grid.map((f) => 6 * Math.sin(3 * Math.log2(f)));
    const placed = placeTarget(grid, level, flat, span, level);
    const inside = [...level].filter((_, i) => grid[i]! >= 1.2 * span.from && grid[i]! <= span.to / 1.2);
    const below = inside.filter((v) => v < placed).length / inside.length;
    expect(below).toBeGreaterThan(0.02);
    expect(below).toBeLessThan(0.08);
  });

  it('does not follow a single narrow dip, nor what lies outside the span', () => {
    const dip = (f: number) => -25 * Math.exp(-((Math.log2(f / 300) / 0.04) ** 2));
    const outside = (f: number) => (f < 25 ? -40 : 0);
    const placed = placeTarget(
      grid,
      grid.map((f) => dip(f) + outside(f)),
      flat,
      span,
    );
    expect(placed).toBeGreaterThan(-1.5);
    expect(placed).toBeLessThanOrEqual(0);
  });

  it('is not known where there is no level', () => {
    expect(() =>
      placeTarget(
        grid,
        grid.map(() => -Infinity),
        flat,
        span,
      ),
    ).toThrow(/no level within 40 to 16000 Hz/);
  });
});
