import { withoutThings } from './editPlace.js';
import type { Project } from './types.js';

/** Ids of what was measured: a spot or loudspeaker that has sweeps stays. */
export const measuredIds = ({ sweeps }: Pick<Project, 'sweeps'>): Set<string> =>
  new Set(sweeps.flatMap((s) => [s.spotId, s.loudspeakerId]));

/**
 * The project without what is chosen in its place, and without what was said of it elsewhere: checks, distances, clicks,
 * families. What was measured stays, as do the home spot and what is locked.
 */
export function withoutChosen(project: Project, ids: ReadonlySet<string>): Project {
  const measured = measuredIds(project);
  const place = withoutThings(project.place, new Set([...ids].filter((id) => !measured.has(id))));
  const left = new Set(place.loudspeakers.map((l) => l.id));
  const gone = (id: string | null) =>
    id !== null && !left.has(id) && project.place.loudspeakers.some((l) => l.id === id);
  const kept = <T>(map: Record<string, T>): Record<string, T> =>
    Object.fromEntries(Object.entries(map).filter(([id]) => !gone(id)));
  const { rig, families, live } = project;
  return {
    ...project,
    place,
    families:
      families && families.map((f) => ({ ...f, loudspeakerIds: f.loudspeakerIds.filter((id) => !gone(id)) })),
    rig: {
      ...rig,
      checks: kept(rig.checks),
      heardTraces: kept(
        Object.fromEntries(Object.entries(rig.heardTraces).map(([id, heard]) => [id, kept(heard)])),
      ),
      distances: rig.distances.filter((d) => !gone(d.a) && !gone(d.b)),
      referenceFrom: gone(rig.referenceFrom) ? null : rig.referenceFrom,
      clickFrom: gone(rig.clickFrom) ? null : rig.clickFrom,
    },
    live: {
      ...live,
      generator: {
        ...live.generator,
        loudspeakerIds: live.generator.loudspeakerIds.filter((id) => !gone(id)),
      },
    },
  };
}
