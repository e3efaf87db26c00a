import type { Family, Loudspeaker, Project } from './types.js';

/** Families as alike loudspeakers propose them: one for every model, in the order in which models first appear. */
export function proposeFamilies(loudspeakers: Loudspeaker[]): Family[] {
  const models = [...new Set(loudspeakers.map((l) => l.model))];
  return models.map((model, i) => ({
    id: `family-${i + 1}`,
    name: model,
    loudspeakerIds: loudspeakers.filter((l) => l.model === model).map((l) => l.id),
  }));
}

/** The families of a project: as arranged by hand, or as proposed. Loudspeakers that are in none make one of their own each. */
export function familiesOf({ families, place }: Pick<Project, 'families' | 'place'>): Family[] {
  const known = new Set(place.loudspeakers.map((l) => l.id));
  const arranged = (families ?? proposeFamilies(place.loudspeakers)).map((f) => ({
    ...f,
    loudspeakerIds: f.loudspeakerIds.filter((id) => known.has(id)),
  }));
  const placed = new Set(arranged.flatMap((f) => f.loudspeakerIds));
  const stray = place.loudspeakers.filter((l) => !placed.has(l.id));
  return [
    ...arranged.filter((f) => f.loudspeakerIds.length > 0),
    ...stray.map((l) => ({ id: `family-of-${l.id}`, name: l.name, loudspeakerIds: [l.id] })),
  ];
}

/** Families with one loudspeaker moved to another; to a new one of its own for `null`. Empty ones go. */
export function withMember(
  families: Family[],
  loudspeaker: Loudspeaker,
  familyId: string | null,
  newId: string,
): Family[] {
  const without = families.map((f) => ({
    ...f,
    loudspeakerIds: f.loudspeakerIds.filter((id) => id !== loudspeaker.id),
  }));
  const moved =
    familyId === null
      ? [...without, { id: newId, name: loudspeaker.name, loudspeakerIds: [loudspeaker.id] }]
      : without.map((f) =>
          f.id === familyId ? { ...f, loudspeakerIds: [...f.loudspeakerIds, loudspeaker.id] } : f,
        );
  return moved.filter((f) => f.loudspeakerIds.length > 0);
}
