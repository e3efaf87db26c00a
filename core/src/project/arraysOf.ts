import type { Project } from './types.js';

/** Ids of all arrays that a project refers to, each once. */
export function arraysOf(project: Project): Set<string> {
  const ids = new Set<string>();
  withArrayIds(project, (id) => {
    ids.add(id);
    return id;
  });
  return ids;
}

/** Ids of the files that are enclosed in a project, each once. */
export const enclosedIds = ({ place }: Pick<Project, 'place'>): Set<string> =>
  new Set([
    ...place.underlays.map((u) => u.fileId),
    ...place.models.flatMap(({ source }) => (source.kind === 'guess' ? [] : [source.fileId])),
  ]);

/** The project with other ids for its arrays. @param named the new id of each */
export function withArrayIds(project: Project, named: (id: string) => string): Project {
  const mapped = <T>(map: Record<string, T>, change: (value: T) => T): Record<string, T> =>
    Object.fromEntries(Object.entries(map).map(([key, value]) => [key, change(value)]));
  const maybe = (id: string | null) => (typeof id === 'string' ? named(id) : null);
  const load = <T extends { filters: Record<string, string> }>(l: T): T => ({
    ...l,
    filters: mapped(l.filters, named),
  });
  const { rig, sweeps, loads, pendingLoad, place } = project;
  return {
    ...project,
    sweeps: sweeps.map((s) => ({
      ...s,
      traceId: named(s.traceId),
      harmonicsId: maybe(s.harmonicsId),
      referenceId: maybe(s.referenceId),
      floor: s.floor && { ...s.floor, traceId: named(s.floor.traceId), joinedId: named(s.floor.joinedId) },
    })),
    loads: loads.map(load),
    kept: project.kept.map((k) => ({ ...k, arrayId: maybe(k.arrayId) })),
    pendingLoad: pendingLoad && { ...pendingLoad, load: load(pendingLoad.load) },
    rig: {
      ...rig,
      roundTrip: rig.roundTrip && { ...rig.roundTrip, traceId: named(rig.roundTrip.traceId) },
      heardTraces: mapped(rig.heardTraces, (heard) => mapped(heard, named)),
      checks: mapped(rig.checks, (check) => ({ ...check, traceId: maybe(check.traceId) })),
    },
    ...(place.head
      ? { place: { ...place, head: { ...place.head, arrayId: named(place.head.arrayId) } } }
      : {}),
  };
}

/** The project with other ids for the files that are enclosed in it. @param named the new id of each */
export const withFileIds = (project: Project, named: (id: string) => string): Project => ({
  ...project,
  place: {
    ...project.place,
    underlays: project.place.underlays.map((u) => ({ ...u, fileId: named(u.fileId) })),
    models: project.place.models.map((m) =>
      m.source.kind === 'guess' ? m : { ...m, source: { ...m.source, fileId: named(m.source.fileId) } },
    ),
  },
});

/** The project with other ids for its runs of the room model. @param named the new id of each */
export const withRunIds = (project: Project, named: (id: string) => string): Project => ({
  ...project,
  roomRuns: project.roomRuns.map((run) => ({ ...run, id: named(run.id) })),
});
