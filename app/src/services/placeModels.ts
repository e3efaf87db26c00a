import type { Loudspeaker, Place } from '@pebble-hall/core/project';
import { radiatingOf } from '../ports/loudspeakers';
import type { AskedModel } from './jobs';

/** A channel's model: one of one's own, one of the library, or what it is taken for where nobody knows it. */
export const modelOf = (
  { models }: Pick<Place, 'models'>,
  { model, role }: Pick<Loudspeaker, 'model' | 'role'>,
): AskedModel => models.find((m) => m.name === model) ?? radiatingOf(model, role);
