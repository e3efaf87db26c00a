import { logGrid } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { rangeOfFound } from './useLevelPlot';

const grid = logGrid();

it('the axis reaches from the loudest that is heard, with room above it, to 45 dB below', () => {
  const left = grid.map((f) => (f < 30 ? 40 : -12));
  expect(rangeOfFound([left])).toEqual({ lowDb: -50, highDb: -5 });
  const sub = grid.map((f) => (f < 100 ? 3 : -Infinity));
  expect(rangeOfFound([left, sub])).toEqual({ lowDb: -35, highDb: 10 });
  expect(rangeOfFound([grid.map(() => NaN)])).toBeUndefined();
});
