import type { Target } from '@pebble-hall/core/correct';
import type { PebbleDatabase, ShelfRow } from './database';

export type TargetPreset = ShelfRow;

/** Targets of one's own, kept beside the projects so that every project can use them. */
export const shelfOf = (database: () => PebbleDatabase) => ({
  list: async (): Promise<TargetPreset[]> =>
    (await database().shelf.orderBy('name').toArray()).map(({ name, target }) => ({
      name,
      // one that was kept before targets could do without natural roll-offs kept them
      target: { ...target, keepsRollOff: target.keepsRollOff ?? true },
    })),
  /** Keeps a target under a name; one of that name is replaced. */
  put: async (name: string, target: Target): Promise<void> => {
    await database().shelf.put({ name, target: { ...target, lowExtensionHz: null, highExtensionHz: null } });
  },
  remove: (name: string): Promise<void> => database().shelf.delete(name),
});
