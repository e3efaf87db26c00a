import { expect, it } from 'vitest';
import { logGrid, type ComplexTrace } from '../signal/index.js';
import { suggestCrossovers } from './index.js';

const grid = logGrid(20, 2000, 48);
/** Flat, and so late. */
const late = (s: number, gain = 1): ComplexTrace => ({
  frequency: grid,
  re: grid.map((f) => gain * Math.cos(2 * Math.PI * f * s)),
  im: grid.map((f) => -gain * Math.sin(2 * Math.PI * f * s)),
});
const filter = (kind: 'Linkwitz-Riley' | 'Butterworth', order: number, frequency: number) => ({
  kind,
  order,
  frequency,
});
const FILTERS = [
  filter('Butterworth', 3, 80),
  filter('Linkwitz-Riley', 4, 80),
  filter('Linkwitz-Riley', 4, 100),
  filter('Linkwitz-Riley', 8, 80),
];

const named = (found: ReturnType<typeof suggestCrossovers>, kind: string, order: number) =>
  found.find((s) => s.filter.kind === kind && s.filter.order === order)!.alignment;

it('Linkwitz and Riley add up in phase with what the ways differ by; of each kind and order one is told, the less steep first', () => {
  const points = [{ reference: late(0.01), moved: late(0.004), weight: 1 }];
  const found = suggestCrossovers({ points, isMovedLow: true, filters: FILTERS, mostDelayS: 0.02 });
  expect(found.map((s) => s.filter.order)).toEqual([3, 4, 8]);
  for (const order of [4, 8]) {
    const { efficiency, delayS, inverted } = named(found, 'Linkwitz-Riley', order);
    // of what is within 0.05 dB of the best the shorter delay is taken
    expect(efficiency).toBeGreaterThan(10 ** (-0.05 / 20));
    // the steeper one shares so narrow a band that another cycle does as well
    if (order === 8) continue;
    expect(Math.abs(delayS - 0.006)).toBeLessThan(0.0006);
    expect(inverted).toBe(false);
  }
  // a quarter turn apart at 80 Hz, which a quarter of its period, near enough, makes up for
  const third = named(found, 'Butterworth', 3);
  expect(Math.abs(Math.abs(third.delayS - 0.006) - 1 / 320)).toBeLessThan(0.0006);
});

it('either side may be the lower one', () => {
  const points = [{ reference: late(0.004), moved: late(0.01), weight: 1 }];
  const found = suggestCrossovers({ points, isMovedLow: false, filters: FILTERS, mostDelayS: 0.02 });
  expect(Math.abs(named(found, 'Linkwitz-Riley', 4).delayS + 0.006)).toBeLessThan(0.0006);
});

it('finds nothing where two share nothing', () => {
  const points = [{ reference: late(0, 1), moved: late(0, 1e-4), weight: 1 }];
  const none = suggestCrossovers({
    points,
    isMovedLow: true,
    filters: [filter('Linkwitz-Riley', 8, 30)],
    mostDelayS: 0.02,
  });
  expect(none.every((s) => s.alignment.efficiency > 0)).toBe(true);
  expect(
    suggestCrossovers({
      points: [{ reference: late(0, 0), moved: late(0), weight: 1 }],
      isMovedLow: true,
      filters: FILTERS,
      mostDelayS: 0.02,
    }),
  ).toEqual([]);
});

it('what is told holds at all points, however few were looked at to find it', () => {
  // 40 places, at the last of which the two can never be in phase with what suits the others
  const points = Array.from({ length: 40 }, (_, i) => ({
    reference: late(0.01),
    moved: late(i === 39 ? 0.004 + 1 / 160 : 0.004),
    weight: 1,
  }));
  const found = suggestCrossovers({
    points,
    isMovedLow: true,
    filters: FILTERS.slice(1, 2),
    mostDelayS: 0.02,
  });
  expect(found[0]!.alignment.atPoints).toHaveLength(40);
  expect(found[0]!.alignment.worst).toBeLessThan(0.3);
  expect(found[0]!.alignment.efficiency).toBeGreaterThan(0.95);
});
