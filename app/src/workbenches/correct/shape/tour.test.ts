import { designChannel, measuredChannel, STARTING_GOAL } from '@pebble-hall/core/correct';
import { logGrid } from '@pebble-hall/core/signal';
import { describe, expect, it } from 'vitest';
import { largestMiss, missNote } from './tour';
import { whyAt } from './why';

const grid = logGrid();
const bump = (f: number, at: number, db: number, octaves: number) =>
  db * Math.exp(-((Math.log2(f / at) / octaves) ** 2));
const goal = {
  id: 'x',
  ...STARTING_GOAL,
  target: {
    handles: [{ frequency: 1000, levelDb: 0 }],
    lowLiftDb: 0,
    highTiltDb: 0,
    keepsRollOff: true,
    lowExtensionHz: null,
    highExtensionHz: null,
  },
  span: { from: 40, to: 12000 },
  targetOffsetDb: 0,
};
const make = (spots: ((f: number) => number)[], over: Partial<typeof goal> = {}) =>
  designChannel(
    grid,
    { ...goal, ...over },
    measuredChannel(
      grid,
      spots.map((at) => grid.map((f) => 10 ** (at(f) / 10))),
    ),
  );
const index = (f: number) => grid.findIndex((g) => g >= f);

describe('largestMiss', () => {
  it('is where the design had to leave most, with the reason', () => {
    const design = make([(f) => bump(f, 200, -20, 0.25), (f) => bump(f, 200, -18, 0.25)]);
    const miss = largestMiss(design, grid);
    expect(miss.at / 200).toBeCloseTo(1, 1);
    expect(miss.db).toBeLessThan(-6);
    expect(miss.reason).toBe('more than the boost limit');
  });
  it('has a reason also where nothing was left alone', () => {
    const peak = [(f: number) => bump(f, 100, 12, 0.3)];
    expect(largestMiss(make(peak, { strength: 0.4 }), grid).reason).toBe('not at full strength there');
    // one seat of three has the peak: their average asks for more than is good for the others
    const alone = make([(f) => bump(f, 300, 16, 0.2), () => 0, () => 0]);
    expect(largestMiss(alone, grid)).toMatchObject({ reason: 'seats do not share this peak' });
    const atTheEnd = make([(f) => bump(f, 42, 12, 0.15)], { span: { from: 40, to: 12000 } });
    expect(largestMiss(atTheEnd, grid).reason).toBe('the soft end of the span');
  });
  it('is small where the target is reached', () => {
    expect(Math.abs(largestMiss(make([(f) => bump(f, 100, 9, 0.5)]), grid).db)).toBeLessThan(1.5);
  });
});

describe('the mark in words', () => {
  const miss = { db: 4.7, at: 124, reason: 'the soft end of the span', leftAlone: false };
  it('is there where the mark is, and where nothing else says it', () => {
    expect(missNote(miss, 4)).toBe('Misses the target most at 124 Hz, by +4.7 dB: the soft end of the span.');
    expect(missNote({ ...miss, reason: null }, 4)).toBe('Misses the target most at 124 Hz, by +4.7 dB.');
    expect(missNote(miss, 5)).toBeNull();
    expect(missNote({ ...miss, leftAlone: true }, 4)).toBeNull();
    expect(missNote({ ...miss, db: -6 }, 4)).toMatch(/by −6\.0 dB/);
  });
});

describe('whyAt', () => {
  it('says that nothing is done outside the span', () => {
    expect(whyAt(make([() => 0]), grid, index(25)).sentence).toMatch(/Outside the span \(40 Hz to 12 kHz\)/);
  });
  it('tells strength, spread and limits apart', () => {
    const peak = (f: number) => bump(f, 100, 9, 0.4);
    const half = make([peak], { strength: 0.5 });
    expect(whyAt(half, grid, index(100)).sentence).toMatch(/Strength is 50 %/);
    expect(whyAt(make([peak]), grid, index(100)).sentence).toBe('The filter does what is wanted.');
    const moving = make([(f: number) => bump(f, 200, -20, 0.3), () => 0, () => 0]);
    expect(whyAt(moving, grid, index(200)).rows[2]![1]).toMatch(/^[3-9]\.\d dB$/);
    const deep = make([(f) => bump(f, 200, -20, 0.3), (f) => bump(f, 200, -20, 0.3)]);
    expect(whyAt(deep, grid, index(200)).sentence).toMatch(/6\.0 dB of boost that are allowed/);
    const high = make([(f) => bump(f, 200, 22, 0.3)]);
    expect(whyAt(high, grid, index(200)).sentence).toMatch(/15\.0 dB of cut/);
  });
});
