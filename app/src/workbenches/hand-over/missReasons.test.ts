import { logGrid } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { missReasons } from './missReasons';

const grid = logGrid();
const predictedDb = grid.map(() => -20);
const base = {
  predictedDb,
  verifiedDb: predictedDb,
  span: { from: 50, to: 10000 },
  laterS: 0,
  role: 'full range' as const,
  marginDb: 35,
  sameMemory: true,
};

it('tells a level that moved, a microphone that moved, noise, and another memory apart', () => {
  expect(missReasons(grid, { ...base, verifiedDb: grid.map(() => -22) })[0]).toMatch(
    /level moved by −2\.0 dB/,
  );
  const dips = grid.map((_, i) => -20 + 3 * Math.sin(i / 5));
  expect(missReasons(grid, { ...base, verifiedDb: dips, laterS: 0.0006 })[0]).toMatch(
    /0\.60 ms later.*microphone stands elsewhere/,
  );
  // filters alone shift the arrival of a subwoofer by more than that
  const sub = { ...base, role: 'subwoofer' as const, verifiedDb: dips };
  expect(missReasons(grid, { ...sub, laterS: -0.002 })[0]).not.toMatch(/microphone stands elsewhere/);
  expect(missReasons(grid, { ...sub, laterS: -0.006 })[0]).toMatch(/microphone stands elsewhere/);
  expect(missReasons(grid, { ...base, verifiedDb: dips, marginDb: 9 })[0]).toMatch(/only 9 dB/);
  expect(missReasons(grid, { ...base, verifiedDb: dips, marginDb: -Infinity })[0]).toMatch(
    /lost in the noise/,
  );
  expect(missReasons(grid, { ...base, verifiedDb: dips, sameMemory: false })[0]).toMatch(/another memory/);
  expect(missReasons(grid, { ...base, verifiedDb: dips })).toEqual([expect.stringMatching(/door, people/)]);
});
