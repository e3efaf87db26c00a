import type { Loudspeaker, Place } from '@pebble-hall/core/project';
import { radiatingOf } from '../ports/loudspeakers';
import { playedModels } from '../ports/rig';
import type { AskedModel } from './jobs';

/** A loudspeaker as a trace of the library: on its axis, in the open. */
export interface Reference {
  id: string;
  /** of the loudspeaker */
  name: string;
  model: AskedModel;
}

/** Where loudspeakers in the open stand, and what of one's own is put beside them. */
export const SHELF = 'Shelf of references';

const START = 'reference-';
const ROLES: Loudspeaker['role'][] = ['full range', 'subwoofer'];

const OURS: Reference[] = ROLES.flatMap((role) =>
  playedModels(role).map((name) => ({
    id: `${START}${name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}`,
    name,
    model: radiatingOf(name, role),
  })),
);

export const isReference = (id: string): boolean => id.startsWith(START);

/** Every loudspeaker whose response in the open is known: those of our library, then one's own. */
export const references = ({ models }: Pick<Place, 'models'>): Reference[] => [
  ...OURS,
  ...models.map((model) => ({ id: `${START}own-${model.id}`.slice(0, 64), name: model.name, model })),
];

export const referenceOf = (place: Pick<Place, 'models'>, id: string): Reference | null =>
  isReference(id) ? (references(place).find((r) => r.id === id) ?? null) : null;
