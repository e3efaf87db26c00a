import type { ChannelDesign } from '@pebble-hall/core/correct';
import { logGrid } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { rangeOfFound } from './useLevelPlot';

const grid = logGrid();
const design = (of: (f: number) => number, span = { from: 40, to: 16000 }) =>
  ({ found: { averageDb: grid.map(of) }, span }) as unknown as ChannelDesign;

it('the axis reaches from the loudest within the spans, with room above it, to 45 dB below', () => {
  const left = design((f) => (f < 30 ? 40 : -12));
  expect(rangeOfFound([left])).toEqual({ lowDb: -50, highDb: -5 });
  const sub = design((f) => (f < 100 ? 3 : -Infinity), { from: 25, to: 110 });
  expect(rangeOfFound([left, sub])).toEqual({ lowDb: -35, highDb: 10 });
  expect(rangeOfFound([design(() => NaN)])).toBeUndefined();
});
