import type { Loudspeaker, Project } from '@pebble-hall/core/project';

/** What every way of looking is given: the channels chosen, and the spot for what can only be seen at one. */
export interface LookProps {
  project: Project;
  channels: Loudspeaker[];
  roundId: string;
  spotId: string;
}
