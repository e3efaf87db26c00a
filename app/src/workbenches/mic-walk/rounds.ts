import type { Project } from '@pebble-hall/core/project';

const ORDINALS = [
  'First',
  'Second',
  'Third',
  'Fourth',
  'Fifth',
  'Sixth',
  'Seventh',
  'Eighth',
  'Ninth',
  'Tenth',
];

/** A new, empty round that is under way from now on; the others stay as they are. */
export function withNewRound(project: Project, id: string, now: number): Project {
  const names = new Set(project.rounds.map((r) => r.name));
  const free = ORDINALS.map((o) => `${o} round`).find(
    (name, i) => i >= project.rounds.length && !names.has(name),
  );
  const name = free ?? `Round ${project.rounds.length + 1}`;
  return { ...project, rounds: [...project.rounds, { id, name, startedAt: now, note: '' }], roundId: id };
}

/** Without a round and its sweeps as found; the newest of the others is under way then. The last one stays. */
export function withoutRound(project: Project, id: string): Project {
  const rounds = project.rounds.filter((r) => r.id !== id);
  if (rounds.length === 0) return project;
  const roundId = project.roundId === id ? rounds.at(-1)!.id : project.roundId;
  return {
    ...project,
    rounds,
    roundId,
    sweeps: project.sweeps.flatMap((s) => {
      if (s.roundId !== id) return [s];
      return s.stage === 'as found' ? [] : [{ ...s, roundId }]; // what was verified belongs to its memory, not to a round
    }),
  };
}
