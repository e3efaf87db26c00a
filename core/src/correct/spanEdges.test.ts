import { describe, expect, it } from 'vitest';
import { logGrid, powerOfDb } from '../signal/index.js';
import { designChannel, measuredChannel, STARTING_GOAL, type Target } from './index.js';

const grid = logGrid();
const at = (f: number) => grid.findIndex((g) => g >= f);
const level: Target = {
  handles: [{ frequency: 1000, levelDb: 0 }],
  lowLiftDb: 0,
  highTiltDb: 0,
  keepsRollOff: true,
  lowExtensionHz: null,
  highExtensionHz: null,
};
/** Lows that lie 4 dB over what is above 500 Hz, with a peak at 80 Hz. */
const found = measuredChannel(grid, [
  grid.map((f) => powerOfDb((f < 250 ? 4 : 0) + 4 * Math.exp(-((Math.log2(f / 80) * 4) ** 2)))),
]);
const design = (span: { from: number; to: number } | null, targetOffsetDb: number | null = null) =>
  designChannel(grid, { ...STARTING_GOAL, id: 'a', target: level, span, targetOffsetDb }, found);

describe('a span that ends within the band', () => {
  it('meets what lies beyond it: no step is left at 300 Hz', () => {
    const { targetDb, edges, predicted } = design({ from: 20, to: 300 });
    expect(edges).toHaveLength(1);
    expect(edges[0]).toMatchObject({ side: 'high', at: 300 });
    expect(Math.abs(edges[0]!.stepDb)).toBeLessThan(0.01);
    expect(targetDb[at(100)]).toBeCloseTo(0, 1); // as what is found from 300 to 600 Hz
    expect(Math.abs(predicted.averageDb[at(200)]! - predicted.averageDb[at(400)]!)).toBeLessThan(1);
  });

  it('tells the step where the target was placed by hand', () => {
    const { edges } = design({ from: 20, to: 300 }, -4);
    expect(edges[0]!.stepDb).toBeCloseTo(4, 1);
  });

  it('has no edges where the span is all of the band', () => {
    expect(design(null).edges).toEqual([]);
  });

  it('between two edges takes half of each step', () => {
    const { edges } = design({ from: 200, to: 2000 });
    expect(edges.map((e) => e.side)).toEqual(['low', 'high']);
    expect(edges[0]!.stepDb + edges[1]!.stepDb).toBeCloseTo(0, 6);
    expect(edges[0]!.stepDb).toBeGreaterThan(1.5);
  });
});
