import type { ChannelDesign } from '@pebble-hall/core/correct';
import { describe, expect, it } from 'vitest';
import { groupBands, groupTarget, groupTraces } from './groupCurves';

const design = (found: number, gain: number) =>
  ({
    gainDb: Float64Array.of(gain),
    targetDb: Float64Array.of(found - 1),
    found: {
      averageDb: Float64Array.of(found),
      lowDb: Float64Array.of(found - 4),
      highDb: Float64Array.of(found + 2),
    },
    predicted: {
      averageDb: Float64Array.of(found + gain),
      lowDb: Float64Array.of(found + gain - 3),
      highDb: Float64Array.of(found + gain + 3),
    },
  }) as ChannelDesign;
const members = [
  { name: 'Left', design: design(-30, -2) },
  { name: 'Right', design: design(-34, 1) },
];
const shown = { found: false, seatRangeBefore: false, seatRangeAfter: false, spots: false };

describe('curves of a family', () => {
  it('are as left, a colour each; as found in the same colours when asked for, told by their line', () => {
    const left = groupTraces(members, 'Level', shown);
    expect(left.map((t) => [t.label, t.role, t.levels[0]])).toEqual([
      ['Left', 'predicted', -32],
      ['Right', 'predicted', -33],
    ]);
    const both = groupTraces(members, 'Level', { found: true });
    expect(both.slice(2).map((t) => [t.role, t.levels[0]])).toEqual([
      ['measured', -30],
      ['measured', -34],
    ]);
    expect(both.slice(2).map((t) => t.colour)).toEqual(left.map((t) => t.colour));
    expect(new Set(both.map((t) => t.id)).size).toBe(4);
  });

  it('are what the filters do under Filter', () => {
    expect(groupTraces(members, 'Filter', { found: true }).map((t) => t.levels[0])).toEqual([-2, 1]);
  });

  it('have the seat range of all of them', () => {
    expect(groupBands(members, shown)).toEqual([]);
    const [before, after] = groupBands(members, { seatRangeBefore: true, seatRangeAfter: true });
    expect([before!.low[0], before!.high[0]]).toEqual([-38, -28]);
    expect([after!.low[0], after!.high[0]]).toEqual([-36, -29]);
    expect(groupBands([], { seatRangeBefore: true, seatRangeAfter: true })).toEqual([]);
  });

  it('have the mean of their targets', () => {
    expect([...groupTarget(members)!]).toEqual([-33]);
    expect(groupTarget([])).toBeNull();
  });
});
