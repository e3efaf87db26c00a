import type { Project } from './types.js';

/** Ids of all arrays that a project refers to. */
export function arraysOf({
  sweeps,
  loads,
  pendingLoad,
  rig,
}: Pick<Project, 'sweeps' | 'loads' | 'pendingLoad' | 'rig'>): Set<string> {
  const looked = [
    ...Object.values(rig.checks).map((c) => c.traceId),
    rig.roundTrip?.traceId,
    ...Object.values(rig.heardTraces).flatMap((heard) => Object.values(heard)),
  ];
  return new Set([
    ...sweeps.flatMap((s) =>
      [s.traceId, s.harmonicsId, s.referenceId, s.floor?.traceId, s.floor?.joinedId].filter(isId),
    ),
    ...[...loads, ...(pendingLoad ? [pendingLoad.load] : [])].flatMap((l) => Object.values(l.filters)),
    ...looked.filter(isId),
  ]);
}

const isId = (id: string | null | undefined): id is string => typeof id === 'string';
