import type { MemoryLoad, Project } from '@pebble-hall/core/project';

export const LOW_CHANNEL_NAME = 'Low-frequency channel';

/** Inputs (from 1) of a load that have no loudspeaker of their own and play on the subwoofers. */
export const lowInputs = ({ outputs }: MemoryLoad, { place }: Project): number[] =>
  (outputs ?? []).flatMap((o, i) =>
    o.bassFeed && !place.loudspeakers.some((l) => l.output === i + 1) ? [i + 1] : [],
  );
