import type { ChannelDesign } from '@pebble-hall/core/correct';
import { describe, expect, it } from 'vitest';
import { channelBands, channelTraces, filterTraces } from './levelCurves';
import type { Shown } from '../pages';

const design = (gain: number) =>
  ({
    gainDb: Float64Array.of(gain, 2 * gain),
    found: {
      averageDb: Float64Array.of(-30, -31),
      lowDb: Float64Array.of(-34, -35),
      highDb: Float64Array.of(-28, -29),
    },
    predicted: {
      averageDb: Float64Array.of(-30 + gain, -31 + 2 * gain),
      lowDb: Float64Array.of(-33, -33),
      highDb: Float64Array.of(-27, -27),
    },
  }) as ChannelDesign;
const shown = (change: Partial<Shown>) =>
  ({ found: false, spots: false, seatRangeBefore: false, seatRangeAfter: false, ...change }) as Shown;
const spots = [Float64Array.of(-32, -30), Float64Array.of(-28, -33)];

describe('curves of a channel', () => {
  it('are as found by a solid line and as left by a dashed one', () => {
    const traces = channelTraces(design(1), shown({}), spots, null);
    expect(traces.map((t) => [t.label, t.role])).toEqual([
      ['as found, average', 'measured'],
      ['as left (predicted)', 'predicted'],
    ]);
    expect([...traces[1]!.levels]).toEqual([-29, -29]);
  });

  it('show single spots as the filter leaves them, named once', () => {
    const traces = channelTraces(design(1), shown({ spots: true }), spots, null).slice(2);
    expect(traces.map((t) => [...t.levels])).toEqual([
      [-31, -28],
      [-27, -31],
    ]);
    expect(traces.map((t) => t.label)).toEqual(['single spots, as left', '']);
  });

  it('lay another variant beside them', () => {
    const traces = channelTraces(design(1), shown({}), spots, { name: 'Sections', design: design(3) });
    expect(traces[2]).toMatchObject({ label: 'as left by Sections', role: 'reference' });
    expect([...traces[2]!.levels]).toEqual([-27, -25]);
  });

  it('have a band for the seats before and one for the seats after, each when it is wanted', () => {
    expect(channelBands(design(1), shown({}))).toEqual([]);
    const both = channelBands(design(1), shown({ seatRangeBefore: true, seatRangeAfter: true }));
    expect(both.map((b) => [...b.low, ...b.high])).toEqual([
      [-34, -35, -28, -29],
      [-33, -33, -27, -27],
    ]);
  });
});

describe('curves of the filter', () => {
  it('are what was asked for, what was made of it once it is made, and what another variant asks differently', () => {
    expect(filterTraces(design(2), null, null).map((t) => t.id)).toEqual(['asked']);
    const made = Float64Array.of(1.9, 4.1);
    const traces = filterTraces(design(2), made, { name: 'Sections', design: design(0.5) });
    expect(traces.map((t) => t.id)).toEqual(['asked', 'made', 'against', 'difference']);
    expect(traces[1]!.levels).toBe(made);
    expect([...traces[3]!.levels]).toEqual([1.5, 3]);
  });
});
