import 'fake-indexeddb/auto';
import type { ExactChannel } from '@pebble-hall/core/correct';
import { expect, it } from 'vitest';
import { PebbleDatabase } from './database';
import { madeFiltersOf } from './madeFilters';

const filter = (gain: number): ExactChannel => ({
  id: 'left',
  fir: Float32Array.of(gain, 0.25),
  sections: [{ kind: 'peak', frequency: 63, gainDb: -3, q: 2 }],
  levelDb: Float64Array.of(1, 2),
  errorDb: 0,
  ahead: [],
  withAll: null,
  latencyS: 0,
  headroom: { toneDb: 1, atHz: 50, programmeDb: 2, fullScaleDb: 1 } as unknown as ExactChannel['headroom'],
});

it('keeps filters as they are under what they were made from, the newest two hundred', async () => {
  const database = new PebbleDatabase('filters-1');
  const filters = madeFiltersOf(() => database);
  expect(await filters.get('a')).toBeNull();
  await filters.put('a', filter(0.5));
  await filters.put('b', filter(0.75));
  expect(await filters.get('a')).toEqual(filter(0.5));
  await filters.put('a', filter(1));
  expect((await filters.get('a'))!.fir![0]).toBe(1);
  for (let i = 0; i < 205; i++) await filters.put(`more ${i}`, filter(i));
  expect(await database.filters.count()).toBe(200);
  expect(await filters.get('more 204')).not.toBeNull();
});

it('does without where nothing can be stored', async () => {
  const closed = madeFiltersOf(() => {
    throw new Error('no database');
  });
  await closed.put('a', filter(1));
  expect(await closed.get('a')).toBeNull();
});
