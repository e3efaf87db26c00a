import { describe, expect, it } from 'vitest';
import { PROCESSOR } from './processorForTest.js';
import { sectionsLevelDb, type Section } from '../path/index.js';
import { logGrid, powerOfDb } from '../signal/index.js';
import { designChannel, exactChannel, measuredChannel, STARTING_FILTER, STARTING_GOAL } from './index.js';

const grid = logGrid();
const rate = 48000;
const at = (f: number) => grid.findIndex((g) => g >= f);

describe('limits hold for the filter as made', () => {
  // narrow resonances, as a small room has them: asking for them takes a filter beyond what is asked
  const peaks = [28, 34, 41, 47, 62, 71, 88].map((f, i) => ({ f, db: 9 + 3 * (i % 3) }));
  const found = measuredChannel(grid, [
    grid.map((f) =>
      powerOfDb(peaks.reduce((sum, p) => sum + p.db * Math.exp(-((Math.log2(f / p.f) * 14) ** 2)), 0)),
    ),
  ]);
  const goal = { ...STARTING_GOAL, id: 'x', span: { from: 20, to: 120 }, targetOffsetDb: -8 };
  it.each(['minimum', 'linear'] as const)(
    'of %s phase: no boost where none is allowed, no more cut than is',
    (style) => {
      const limits = { maxBoostDb: 0, maxCutDb: 12 };
      const design = designChannel(grid, { ...goal, ...limits }, found);
      const { levelDb } = exactChannel(grid, design, limits, { ...STARTING_FILTER, style }, PROCESSOR);
      expect(Math.max(...levelDb)).toBeLessThan(0.15);
      expect(Math.min(...levelDb)).toBeGreaterThan(-12.4);
      expect(Math.min(...levelDb)).toBeLessThan(-11);
      grid.forEach((f, i) => {
        if (f < 20 || f > 120) expect(Math.abs(levelDb[i]!)).toBeLessThan(0.2);
      });
    },
  );

  it('together with what else acts on the outputs, each of them', { tags: 'bars' }, () => {
    const besides: Section[][] = [
      [{ kind: 'peak', frequency: 62, gainDb: -8, q: 6 }],
      [{ kind: 'peak', frequency: 41, gainDb: 3, q: 6 }],
    ];
    const limits = { maxBoostDb: 2, maxCutDb: 12 };
    const design = designChannel(grid, { ...goal, ...limits, besides }, found);
    const { levelDb } = exactChannel(grid, design, limits, STARTING_FILTER, PROCESSOR);
    for (const sections of besides) {
      const own = sectionsLevelDb(sections, rate, grid);
      const sum = levelDb.map((v, i) => v + own[i]!);
      expect(Math.min(...sum)).toBeGreaterThan(-12.4);
      // what the other one has on its own is not this filter's
      grid.forEach((_, i) => expect(sum[i]! - Math.max(0, own[i]! - 2)).toBeLessThan(2.15));
    }
    expect(design.fullDb[at(62)]).toBeGreaterThan(-4.1);
    // sections keep to it as well
    const fitted = exactChannel(grid, design, limits, { ...STARTING_FILTER, form: 'sections' }, PROCESSOR);
    for (const sections of besides) {
      const own = sectionsLevelDb(sections, rate, grid);
      expect(Math.min(...fitted.levelDb.map((v, i) => v + own[i]!))).toBeGreaterThan(-12.05);
    }
  });
});
