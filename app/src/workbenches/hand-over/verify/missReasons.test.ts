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
  snrDb: 35,
  othersArrive: null,
  arrivesLike: null,
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
  expect(missReasons(grid, { ...base, verifiedDb: dips, snrDb: 9 })[0]).toMatch(/only 9 dB/);
  expect(missReasons(grid, { ...base, verifiedDb: dips, snrDb: -Infinity })[0]).toMatch(/lost in the noise/);
  expect(missReasons(grid, { ...base, verifiedDb: dips, sameMemory: false })[0]).toMatch(/another memory/);
  expect(missReasons(grid, { ...base, verifiedDb: dips })).toEqual([expect.stringMatching(/door, people/)]);
});

it('does not blame the microphone where the other channels arrive as expected', () => {
  const dips = grid.map((_, i) => -20 + 3 * Math.sin(i / 5));
  const late = { ...base, verifiedDb: dips, laterS: -0.0026 };
  const told = (more: Partial<typeof late> | { othersArrive: boolean; arrivesLike: string | null }) =>
    missReasons(grid, { ...late, ...more })[0];
  expect(told({ othersArrive: false, arrivesLike: 'Surround right' })).toMatch(/microphone stands elsewhere/);
  expect(told({ othersArrive: true, arrivesLike: null })).toMatch(
    /2\.60 ms earlier than expected, and the other channels as expected: this loudspeaker was moved/,
  );
  expect(told({ othersArrive: true, arrivesLike: 'Surround right' })).toMatch(
    /as Surround right would.*the two are probably exchanged/,
  );
});
