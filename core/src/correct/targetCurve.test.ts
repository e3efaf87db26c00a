import { expect, it } from 'vitest';
import { logGrid, seededRandom } from '../signal/index.js';
import { meanInSpan, rmsDistance, spanWeight, targetCurve } from './index.js';

const grid = logGrid();

it('passes through its handles and is flat beyond them', () => {
  const handles = [
    { frequency: 1000, levelDb: 0 },
    { frequency: 50, levelDb: 4 },
    { frequency: 8000, levelDb: -3 },
  ];
  expect(Array.from(targetCurve(handles, Float64Array.of(20, 50, 1000, 8000, 20000)))).toEqual([
    4, 4, 0, -3, -3,
  ]);
});

it('never overshoots between two handles, whatever they are', () => {
  const random = seededRandom(9);
  for (let round = 0; round < 50; round++) {
    const handles = Array.from({ length: 6 }, (_, i) => ({
      frequency: 20 * 2 ** (1.6 * i + random.uniform()),
      levelDb: 12 * random.uniform() - 6,
    }));
    const curve = targetCurve(handles, grid);
    grid.forEach((f, k) => {
      const i = handles.findIndex((h, j) => f >= h.frequency && f < (handles[j + 1]?.frequency ?? 0));
      if (i < 0) return;
      const [a, b] = [handles[i]!.levelDb, handles[i + 1]!.levelDb];
      expect(curve[k]).toBeGreaterThanOrEqual(Math.min(a, b) - 1e-9);
      expect(curve[k]).toBeLessThanOrEqual(Math.max(a, b) + 1e-9);
    });
  }
});

it('is a straight line over log frequency where the handles lie on one', () => {
  const slope = (f: number) => 3 - 2 * Math.log10(f);
  const handles = [20, 200, 2000, 20000].map((frequency) => ({ frequency, levelDb: slope(frequency) }));
  const curve = targetCurve(handles, Float64Array.of(600));
  expect(curve[0]).toBeCloseTo(slope(600), 9);
});

it('refuses doubled, missing and impossible handles', () => {
  expect(() => targetCurve([], grid)).toThrow(/at least one/);
  const twice = [
    { frequency: 100, levelDb: 1 },
    { frequency: 100, levelDb: 2 },
  ];
  expect(() => targetCurve(twice, grid)).toThrow(/two handles at 100/);
  expect(() => targetCurve([{ frequency: 100, levelDb: NaN }], grid)).toThrow(/not usable/);
});

it('weighs a span softly inside and not at all outside', () => {
  const weight = spanWeight(grid, { from: 100, to: 5000 });
  grid.forEach((f, i) => {
    if (f <= 100 || f >= 5000) expect(weight[i]).toBe(0);
    if (f > 100 * 2 ** (1 / 2) && f < 5000 / 2 ** (1 / 2)) expect(weight[i]).toBe(1);
  });
  expect(() => spanWeight(grid, { from: 100, to: 100 })).toThrow(/from < to/);
});

it('measures distances per octave', () => {
  const step = grid.map((f) => (f < 1000 ? 4 : 0));
  const span = { from: 100, to: 10000 };
  expect(meanInSpan(grid, step, span)).toBeCloseTo(2, 1);
  expect(
    rmsDistance(
      grid,
      step,
      step.map(() => 0),
      span,
    ),
  ).toBeCloseTo(Math.sqrt(8), 1);
});
