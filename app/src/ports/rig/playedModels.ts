import type { Loudspeaker } from '@pebble-hall/core/project';
import { MODELS } from '@pebble-hall/stand-ins/loudspeakers';

/** Names of the loudspeakers that the simulated rig can play; any other plays as the small one of its role. */
export const playedModels = (role: Loudspeaker['role']): string[] =>
  MODELS.filter((m) => m.role === role).map((m) => m.model.name);
