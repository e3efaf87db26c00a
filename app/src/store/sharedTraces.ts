import { liveQuery } from 'dexie';
import type { PebbleDatabase, SharedTrace } from './database';

/** Traces kept beside the projects: a shelf that all of them share. */
export const sharedTracesOf = (database: () => PebbleDatabase) => ({
  /** Hands on all of them by name, now and after every change, in whichever tab. @returns how to stop */
  watch(take: (shared: SharedTrace[]) => void): () => void {
    const all = liveQuery(() => database().references.toArray());
    const { unsubscribe } = all.subscribe((rows) =>
      take(rows.sort((a, b) => a.trace.name.localeCompare(b.trace.name))),
    );
    return unsubscribe;
  },
  put: async (row: SharedTrace): Promise<void> => void (await database().references.put(row)),
  remove: (id: string): Promise<void> => database().references.delete(id),
});
