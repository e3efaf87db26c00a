import type { ExactChannel } from '@pebble-hall/core/correct';
import type { PebbleDatabase } from './database';

/** So many are kept, the newest: some 40 KB each. */
const KEPT = 200;

/**
 * Filters that were worked out, kept from page to page. Losing them costs time only, so nothing that goes wrong here is
 * told: they are made again.
 */
export const madeFiltersOf = (database: () => PebbleDatabase) => ({
  get: async (key: string): Promise<ExactChannel | null> => {
    try {
      return (await database().filters.get(key))?.filter ?? null;
    } catch {
      return null;
    }
  },
  put: async (key: string, filter: ExactChannel): Promise<void> => {
    try {
      const { filters } = database();
      await filters.put({ key, filter, at: Date.now() });
      const over = (await filters.count()) - KEPT;
      if (over > 0) await filters.orderBy('at').limit(over).delete();
    } catch {
      // a full disk, or a database that another tab holds
    }
  },
});
