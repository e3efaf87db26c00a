import type { ProcessorProfile } from '@pebble-hall/core/processing';
import type { PebbleDatabase } from './database';

/** Profiles of processors of one's own, for all projects of this browser, by their names. */
export const profilesOf = (database: () => PebbleDatabase) => ({
  list: async (): Promise<ProcessorProfile[]> =>
    (await database().profiles.orderBy('model').toArray()).map(({ profile }) => profile),
  put: async (profile: ProcessorProfile): Promise<void> => {
    await database().profiles.put({ model: profile.model, profile });
  },
  remove: async (model: string): Promise<void> => {
    await database().profiles.delete(model);
  },
});
