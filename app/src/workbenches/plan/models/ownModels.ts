import type { EnclosedFile, Loudspeaker, OwnModel, Place } from '@pebble-hall/core/project';
import { playedModels } from '../../../ports/rig';
import { changeProject } from '../../../services/changeProject';

/** What can be chosen for a channel: of one's own first. */
export function modelNames(
  { models }: Pick<Place, 'models'>,
  { model, role }: Pick<Loudspeaker, 'model' | 'role'>,
): string[] {
  const own = models.filter((m) => m.role === role).map((m) => m.name);
  const names = [...own, ...playedModels(role)];
  return names.includes(model) ? names : [model, ...names];
}

/** Why a name cannot be taken for a model; null where it can. */
export function nameProblem({ models }: Pick<Place, 'models'>, name: string): string | null {
  if (name.trim() === '') return 'Give it a name.';
  const taken = [...models.map((m) => m.name), ...playedModels('full range'), ...playedModels('subwoofer')];
  return taken.includes(name.trim()) ? `There is a ${name.trim()} already: give it another name.` : null;
}

/** Adds a model and gives it to a channel. @returns whether it was stored */
export const keepModel = (
  model: OwnModel,
  file: EnclosedFile | null,
  loudspeakerId: string,
): Promise<boolean> =>
  changeProject(
    `model ${model.name}`,
    (p) => ({
      ...p,
      place: {
        ...p.place,
        models: [...p.place.models, model],
        loudspeakers: p.place.loudspeakers.map((l) =>
          l.id === loudspeakerId ? { ...l, model: model.name } : l,
        ),
      },
    }),
    file ? { enclosed: [file] } : undefined,
  );

/** Removes a model; channels of it become the first of the library of their role. */
export const removeModel = (model: OwnModel): Promise<boolean> =>
  changeProject(`model ${model.name} removed`, (p) => ({
    ...p,
    place: {
      ...p.place,
      models: p.place.models.filter((m) => m.id !== model.id),
      loudspeakers: p.place.loudspeakers.map((l) =>
        l.model === model.name ? { ...l, model: playedModels(l.role)[0]! } : l,
      ),
    },
  }));
