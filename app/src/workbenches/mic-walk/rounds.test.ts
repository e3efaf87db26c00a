import { type Sweep, checkProject } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { netLoftProject } from '../../../../demo/netLoftProject';
import { withNewRound, withoutRound } from './rounds';

const project = netLoftProject();
const sweep = (id: string, roundId: string, stage: Sweep['stage'] = 'as found') =>
  ({ id, roundId, stage }) as Sweep;

it('begins a new round with a name of its own, and keeps the others', () => {
  const second = withNewRound(project, 'r2', 5);
  expect(second.rounds.map((r) => r.name)).toEqual(['First round', 'Second round']);
  expect(second.roundId).toBe('r2');
  expect(withNewRound(second, 'r3', 6).rounds.at(-1)).toMatchObject({ name: 'Third round', startedAt: 6 });
  expect(checkProject(second)).toHaveProperty('project');
});

it('deletes a round with its sweeps; what was verified stays, and so does the last round', () => {
  const first = project.roundId;
  const two = {
    ...withNewRound(project, 'r2', 5),
    sweeps: [
      sweep('a', first),
      sweep('b', 'r2'),
      sweep('c', 'r2', 'verified'),
      sweep('d', 'r2', 'verified with bass'),
    ],
  };
  const left = withoutRound(two, 'r2');
  expect(left.roundId).toBe(first);
  expect(left.sweeps.map((s) => [s.id, s.roundId])).toEqual([
    ['a', first],
    ['c', first],
    ['d', first],
  ]);
  expect(withoutRound(project, first)).toBe(project);
});
