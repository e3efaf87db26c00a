import type { Project, Sweep } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { netLoftProject } from '../../../demo/netLoftProject';
import { patched, patchesBetween } from './projectPatch';

const sweep = (id: string) => ({ id }) as Sweep;
const withSweeps = (...ids: string[]): Project => ({ ...netLoftProject(), sweeps: ids.map(sweep) });
/** The same sweeps by identity, as a change of a stored project has them. */
const changed = (
  project: Project,
  change: (sweeps: Sweep[]) => Sweep[],
  next: Partial<Project> = {},
): Project => ({
  ...project,
  ...next,
  sweeps: change(project.sweeps),
});

it.each<[string, (sweeps: Sweep[]) => Sweep[]]>([
  ['a sweep more', (s) => [...s, sweep('x')]],
  ['one taken again', (s) => [...s.filter((one) => one.id !== 'b'), sweep('b2')]],
  ['one gone', (s) => s.filter((one) => one.id !== 'a')],
  ['one altered in place', (s) => s.map((one) => (one.id === 'c' ? { ...one, note: 'door' } : one))],
  ['all gone', () => []],
  ['nothing', (s) => s],
])('goes forth and back: %s', (_, change) => {
  const before = withSweeps('a', 'b', 'c', 'd');
  const after = changed(before, change, { name: 'Another' });
  const { back, forth } = patchesBetween(before, after);
  expect(patched(before, forth)).toEqual(after);
  expect(patched(after, back)).toEqual(before);
});

it('holds no more than what differs', () => {
  const before = withSweeps('a', 'b', 'c', 'd');
  const { back, forth } = patchesBetween(
    before,
    changed(before, (s) => [...s, sweep('x')]),
  );
  expect(forth).toEqual({ set: {}, sweeps: { at: 4, remove: 0, insert: [sweep('x')] } });
  expect(back).toEqual({ set: {}, sweeps: { at: 4, remove: 1, insert: [] } });
});
