import { liveGrid, type LiveFrame, type TransferCurve } from '@pebble-hall/core/live';
import { expect, it } from 'vitest';
import { channelCurves, levelCurves, lowerAxis, lowerCurves } from './deviceCurves';

const frequency = liveGrid(48_000);
const curve = (gain: number, deg = 0): TransferCurve => ({
  frequency,
  re: frequency.map(() => gain * Math.cos((deg * Math.PI) / 180)),
  im: frequency.map(() => gain * Math.sin((deg * Math.PI) / 180)),
  coherence: frequency.map(() => 1),
});
const bench = { toleranceDb: 0.5, toleranceDeg: 5 };
const at1k = frequency.findIndex((f) => f >= 1000);

it('B over A is drawn about its mean, between the edges of the tolerance', () => {
  const drawn = lowerCurves('Difference', [curve(1), curve(0.9)], bench, 12, 20 * Math.log10(0.9));
  expect(drawn.map((c) => c.values[at1k])).toEqual([0.5, -0.5, expect.closeTo(0, 6) as number]);
  const phase = lowerCurves('Phase apart', [curve(1, 3), curve(1, 7)], bench, 12, 0);
  expect(phase.at(-1)!.values[at1k]).toBeCloseTo(4, 4);
  expect(phase[0]!.values[0]).toBe(5);
});

it('with one channel there is nothing to compare, but its phase is drawn', () => {
  expect(lowerCurves('Difference', [curve(1), null], bench, 12, 0)).toEqual([]);
  expect(lowerCurves('Phase', [curve(1, 30), null], bench, 12, 0)[0]!.values[at1k]).toBeCloseTo(30, 4);
  expect(lowerCurves('Coherence', [curve(1)], bench, 12, 0)[0]!.values[at1k]).toBeCloseTo(1, 6);
});

it('the axis is three times the tolerance', () => {
  expect(lowerAxis('Difference', bench).range).toEqual({ lowDb: -1.5, highDb: 1.5 });
  expect(lowerAxis('Phase apart', bench).range.highDb).toBe(15);
});

it('what was kept flat lies dotted under the channels', () => {
  const [flat, channel] = levelCurves([curve(2)], curve(1), 12);
  expect(flat!.dash).toEqual([2, 4]);
  expect(channel!.values[at1k]).toBeCloseTo(6.02, 2);
});

it('channels are found by their ids, and those that are not measured are not known', () => {
  const frame = { measured: [{ id: 'device-2', curve: curve(1) }] } as unknown as LiveFrame;
  expect(channelCurves(frame, 2).map((c) => c !== null)).toEqual([false, true]);
  expect(channelCurves(null, 1)).toEqual([null]);
});
