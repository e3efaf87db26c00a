import { describe, expect, it } from 'vitest';
import { logGrid, powerOfDb } from '../signal/index.js';
import {
  designChannel,
  keptEnds,
  measuredChannel,
  extendedSpan,
  rollOffDb,
  STARTING_GOAL,
  type Target,
} from './index.js';

const grid = logGrid();
const at = (f: number) => grid.findIndex((g) => g >= f);
const flat: Target = {
  handles: [{ frequency: 1000, levelDb: 0 }],
  lowLiftDb: 0,
  highTiltDb: 0,
  keepsRollOff: true,
  lowExtensionHz: null,
  highExtensionHz: null,
};
const own = { low: { cornerHz: 80, order: 2 }, high: { cornerHz: 9000, order: 2 } };
/** A loudspeaker that is nothing but its roll-offs, alike at every spot. */
const found = measuredChannel(grid, [rollOffDb(own, grid).map(powerOfDb)]);
const design = (target: Partial<Target>, more = {}) =>
  designChannel(
    grid,
    {
      ...STARTING_GOAL,
      id: 'a',
      maxBoostDb: 12,
      span: null,
      targetOffsetDb: 0,
      ...more,
      target: { ...flat, ...target },
    },
    found,
  );

describe('ends that are pushed', () => {
  it('cost nothing while they are kept: nothing is boosted to fight them', () => {
    const { extension, gainDb } = design({});
    expect(extension).toBeNull();
    expect(Math.max(...gainDb)).toBeLessThan(1);
  });

  // a Butterworth magnitude of order 2 is 10 lg (1 + (80/60)^4) = 6.19 dB down at 60 Hz; pushed there, 3.01 dB
  it('a low end pushed from 80 to 60 Hz takes the 3.2 dB that it lacks there, and says so', () => {
    const { extension, gainDb, targetDb, predicted, span } = design({ lowExtensionHz: 60 });
    expect(targetDb[at(60)]).toBeCloseTo(-3.01, 0);
    expect(predicted.averageDb[at(60)]! - targetDb[at(60)]!).toBeGreaterThan(-1);
    expect(Math.abs(gainDb[at(60)]! - 3.18)).toBeLessThan(0.7);
    expect(extension!.moreDb).toBeGreaterThan(2.5);
    expect(extension!.moreDb).toBeLessThanOrEqual(10 * Math.log10((80 / 60) ** 4) + 0.1); // what it lacks far below
    expect(extension!.costDb).toBeCloseTo(extension!.moreDb, 0); // nothing else is boosted
    expect(span.from).toBeLessThan(60);
  });

  it('a high end pushed from 9 to 12 kHz likewise', () => {
    const { extension, predicted, targetDb } = design({ highExtensionHz: 12000 });
    expect(targetDb[at(12000)]).toBeCloseTo(-3.01, 0);
    expect(predicted.averageDb[at(12000)]! - targetDb[at(12000)]!).toBeGreaterThan(-1);
    expect(extension!.moreDb).toBeGreaterThan(2.5);
  });

  it('costs no more than the boost limit, and nothing at strength 0', () => {
    expect(design({ lowExtensionHz: 30 }, { maxBoostDb: 3 }).extension!.costDb).toBeLessThanOrEqual(3);
    expect(design({ lowExtensionHz: 30 }, { strength: 0 }).extension).toEqual({ moreDb: 0, costDb: 0 });
  });

  it('costs no headroom where more is boosted elsewhere, but still says what it takes', () => {
    const dip = rollOffDb(own, grid).map((v, i) => v - 8 * Math.exp(-((Math.log2(grid[i]! / 500) * 3) ** 2)));
    const lifted = measuredChannel(grid, [dip.map(powerOfDb)]);
    const goal = { ...STARTING_GOAL, id: 'a', maxBoostDb: 12, span: null, targetOffsetDb: 0 };
    const { extension } = designChannel(grid, { ...goal, target: { ...flat, lowExtensionHz: 70 } }, lifted);
    expect(extension!.costDb).toBeLessThan(0.01);
    expect(extension!.moreDb).toBeGreaterThan(1);
  });

  it('is never pulled in', () => {
    expect(keptEnds(own, { keepsRollOff: true, lowExtensionHz: 160, highExtensionHz: 4000 })).toEqual(own);
    const span = { from: 50, to: 10000 };
    expect(extendedSpan(span, own, { lowExtensionHz: 160, highExtensionHz: 4000 })).toEqual(span);
    expect(extendedSpan(span, own, { lowExtensionHz: 40, highExtensionHz: 18000 })).toEqual({
      from: 25,
      to: 20000,
    });
    expect(
      extendedSpan(span, { low: null, high: null }, { lowExtensionHz: 40, highExtensionHz: 18000 }),
    ).toEqual(span);
  });
});

describe('a target without natural roll-off', () => {
  it('is asked for as it is drawn: -4 dB at 10 kHz of a loudspeaker that is 5.5 dB down there', () => {
    const falls = grid.map((f) => -5.5 * Math.max(0, Math.log2(f / 1000) / Math.log2(10)));
    const handles = [
      { frequency: 1000, levelDb: 0 },
      { frequency: 10_000, levelDb: -4 },
    ];
    const goal = { ...STARTING_GOAL, id: 'a', span: null, targetOffsetDb: 0 };
    const { predicted, ends, targetDb } = designChannel(
      grid,
      { ...goal, target: { ...flat, handles, keepsRollOff: false } },
      measuredChannel(grid, [falls.map(powerOfDb)]),
    );
    const at10k = at(10_000);
    expect(ends).toEqual({ low: null, high: null });
    expect(targetDb[at10k]! - targetDb[at(1000)]!).toBeCloseTo(-4, 2);
    expect(predicted.averageDb[at10k]! - predicted.averageDb[at(1000)]!).toBeCloseTo(-4, 0);
  });
});
