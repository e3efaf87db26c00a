import { logGrid } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { besideVariantWords } from './besideVariant';

const grid = logGrid();
const memory = { letter: 'B', predictedDb: grid.map(() => -20), span: { from: 50, to: 10000 } };
const words = (of: (f: number) => number) =>
  besideVariantWords(grid, memory, { name: 'Warmer', levelDb: grid.map(of) });

it('tells where a variant would differ most from a memory, within the span alone', () => {
  expect(words((f) => (f > 200 && f < 400 ? -17 : f < 40 ? 5 : -20))).toMatch(
    /^Warmer would differ from memory B by \+3\.0 dB at \d+ Hz at most\.$/,
  );
  expect(words((f) => (f < 40 ? 5 : -20.02))).toBe('Warmer would do the same as memory B here.');
});
