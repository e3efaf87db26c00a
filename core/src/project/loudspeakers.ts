import type { Loudspeaker, Place } from './place.js';

type Loudspeakers = Pick<Place, 'loudspeakers'>;

export const loudspeakerById = ({ loudspeakers }: Loudspeakers, id: string | null): Loudspeaker | undefined =>
  loudspeakers.find((l) => l.id === id);

/** What a loudspeaker is called; its id where the place does not know it any more. */
export const loudspeakerName = (place: Loudspeakers, id: string): string =>
  loudspeakerById(place, id)?.name ?? id;

/** The loudspeaker on an output, from 1. */
export const loudspeakerOn = ({ loudspeakers }: Loudspeakers, output: number): Loudspeaker | undefined =>
  loudspeakers.find((l) => l.output === output);
