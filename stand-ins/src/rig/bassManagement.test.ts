import { powerOnGrid } from '@pebble-hall/core/measure';
import {
  buildOutputs,
  outputSource,
  type BassFeed,
  type OutputCorrection,
} from '@pebble-hall/core/processing';
import { sumPathsInTime } from '@pebble-hall/core/path';
import { dbOfPower, exponentialSweep, logGrid } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { houseMemory, SKERRY, type Memory } from '../processor/index.js';
import { SimulatedRoom } from './index.js';
import { homeSpot, measure } from './measureForTest.js';

const room = new SimulatedRoom(1);
const house = houseMemory();
const grid = logGrid(25, 400, 24);
const lowPass = { kind: 'Linkwitz-Riley' as const, order: 4, frequency: 80 };
const nothing = { fir: null, sections: [], sub: null, allPasses: [] };
const channels: OutputCorrection[] = [
  {
    ...nothing,
    id: 'left',
    output: 1,
    role: 'full range',
    alignment: { trimDb: -2, delayMs: 1.5, inverted: false },
    crossovers: { highPass: lowPass, lowPass },
  },
  ...[6, 7].map((output) => ({
    ...nothing,
    id: `sub ${output}`,
    output,
    role: 'subwoofer' as const,
    alignment: { trimDb: -1, delayMs: output - 5, inverted: output === 7 },
    crossovers: { highPass: null, lowPass: { ...lowPass, frequency: 125 } },
  })),
];
const low = { input: 8, feed: { gainDb: 10, lowPass: { ...lowPass, frequency: 120 } } };
const built = buildOutputs(house.outputs, channels, {
  guard: 'off',
  fitted: [],
  low,
  profile: SKERRY,
});
const memory: Memory = { ...house, outputs: built.outputs };

// each loudspeaker measured by itself, with what the processor did then
const louder = exponentialSweep({ rate: 48000, from: 20, to: 20000, durationS: 3, levelDbfs: -14 });
const heard = (channel: number, played = louder, through: 'outputs' | 'inputs' = 'inputs') =>
  measure(room, channel, homeSpot, memory, undefined, played, through).impulse;
const alone = new Map(
  [1, 6, 7].map((output) => [output, measure(room, output, homeSpot, undefined, undefined, louder).impulse]),
);
const source = (output: number, feed: BassFeed | null = null) =>
  outputSource({
    impulse: alone.get(output)!,
    before: house.outputs[output - 1]!,
    after: built.outputs[output - 1]!,
    fir: null,
    feed,
  });

const softer = exponentialSweep({ rate: 48000, from: 20, to: 20000, durationS: 3, levelDbfs: -24 });
const levels = (impulse: Parameters<typeof powerOnGrid>[0]) => powerOnGrid(impulse, grid, 6).map(dbOfPower);
const worst = (a: Float64Array, b: Float64Array, from: number, to: number) =>
  Math.max(...[...grid].map((f, k) => (f >= from && f <= to ? Math.abs(a[k]! - b[k]!) : 0)));

it('what a channel and its bass on the subwoofers make together is predicted from each of them alone, within 0.2 dB', () => {
  const feed = built.outputs[0]!.bassFeed!;
  const sum = sumPathsInTime([source(1), ...[6, 7].map((output) => source(output, feed))]);
  const measured = heard(1);
  expect(worst(levels(sum), levels(measured), 30, 400)).toBeLessThan(0.2);
  // through its output alone the channel has no bass: the two ways of playing are not the same
  const direct = heard(1, louder, 'outputs');
  expect(worst(levels(direct), levels(measured), 30, 60)).toBeGreaterThan(6);
});

it('the low-frequency channel plays on the subwoofers alone, as predicted from them, within 0.2 dB', () => {
  const sum = sumPathsInTime([6, 7].map((output) => source(output, low.feed)));
  // 10 dB come on top: as much softer, so that the drives are bent no more than when each was measured by itself
  const measured = heard(8, softer);
  expect(worst(levels(sum), levels(measured), 30, 150)).toBeLessThan(0.2);
});
