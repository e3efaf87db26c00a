import 'fake-indexeddb/auto';
import { writeProjectFile, type Project } from '@pebble-hall/core/project';
import { beforeEach, describe, expect, it } from 'vitest';
import { netLoftProject } from '../../../demo/netLoftProject';
import { PebbleDatabase } from './database';
import { ProjectOwner, type TabLine } from './openProject';
import { ProjectRepository } from './projectRepository';

let count = 0;
let id: string;
let database: PebbleDatabase;

/** Tabs that share a browser: what one posts, all others hear. */
function tabs() {
  const lines = new Set<(told: never) => void>();
  const line = (): TabLine => {
    let own: ((told: never) => void) | null = null;
    return {
      post: (told) => lines.forEach((take) => take !== own && take(structuredClone(told) as never)),
      listen: (take) => {
        own = take as (told: never) => void;
        lines.add(own);
        return () => lines.delete(own!);
      },
    };
  };
  return { owner: () => new ProjectOwner(new ProjectRepository(database), line()) };
}
const projectOf = (owner: ProjectOwner): Project => {
  const state = owner.store.getState();
  if (state.status !== 'ready') throw new Error(`it is ${state.status}`);
  return state.project;
};
const rename = (name: string) => (p: Project) => ({ ...p, name });
const setLevel = (levelDbfs: number) => (p: Project) => ({ ...p, rig: { ...p.rig, levelDbfs } });
const quiet = async () => {
  for (let i = 0; i < 20; i++) await new Promise((resolve) => setTimeout(resolve, 0));
};

beforeEach(async () => {
  database = new PebbleDatabase(`owner-${++count}`);
  id = await new ProjectRepository(database).takeInShipped(writeProjectFile(netLoftProject(), []));
});

describe('the owner of the open project', () => {
  it('keeps the identity of whatever a change leaves alone, through undo and redo as well', async () => {
    const owner = tabs().owner();
    await owner.open(id);
    const before = projectOf(owner);
    await owner.change('level', setLevel(-33));
    const after = projectOf(owner);
    expect(after.rig.levelDbfs).toBe(-33);
    expect(after.place).toBe(before.place);
    expect(after.variants).toBe(before.variants);
    expect(after.rig.microphones).toBe(before.rig.microphones);
    expect(await owner.undo()).toBe('level');
    expect(projectOf(owner).rig).toEqual(before.rig);
    expect(projectOf(owner).rig.microphones).toBe(before.rig.microphones);
    expect(owner.store.getState()).toMatchObject({ undo: null, redo: 'level' });
    await owner.redo();
    expect(projectOf(owner).rig.levelDbfs).toBe(-33);
    expect(owner.store.getState()).toMatchObject({ undo: 'level', redo: null });
  });

  it('makes changes one after the other, each of what the one before it stored', async () => {
    const owner = tabs().owner();
    await owner.open(id);
    const add = (n: number) => owner.change(`${n}`, (p) => ({ ...p, name: `${p.name}${n}` }));
    const { name } = projectOf(owner);
    await Promise.all([1, 2, 3, 4].map(add));
    expect(projectOf(owner).name).toBe(`${name}1234`);
    expect((await new ProjectRepository(database).open(id))!.name).toBe(`${name}1234`);
  });

  it('stays as it was when a change fails, and goes on', async () => {
    const owner = tabs().owner();
    await owner.open(id);
    const before = projectOf(owner);
    const fails = owner.change('bad', () => {
      throw new Error('no room');
    });
    await expect(fails).rejects.toThrow('no room');
    expect(projectOf(owner)).toBe(before);
    await owner.change('good', rename('Loft'));
    expect(projectOf(owner).name).toBe('Loft');
  });

  it('does nothing for a change that changes nothing', async () => {
    const owner = tabs().owner();
    await owner.open(id);
    await owner.change('nothing', (p) => p);
    expect(owner.store.getState()).toMatchObject({ undo: null, at: 0 });
  });

  it('says why nothing can be opened', async () => {
    const owner = tabs().owner();
    await owner.open('not there');
    expect(owner.store.getState()).toMatchObject({
      status: 'blocked',
      problem: expect.stringMatching(/no longer/),
    });
    await expect(owner.change('x', (p) => p)).rejects.toThrow(/No project is open/);
  });
});

describe('two tabs', () => {
  it('show the same, and what one does leaves the rest of the other alone', async () => {
    const { owner } = tabs();
    const [one, two] = [owner(), owner()];
    await one.open(id);
    await two.open(id);
    const before = projectOf(two);
    await one.change('level', setLevel(-40));
    await quiet();
    expect(projectOf(two).rig.levelDbfs).toBe(-40);
    expect(projectOf(two).place).toBe(before.place);
    expect(projectOf(two).rig.microphones).toBe(before.rig.microphones);
    expect(two.store.getState()).toMatchObject({ undo: 'level' });
    await two.undo();
    await quiet();
    expect(projectOf(one)).toEqual(before);
  });

  it('that change at once never overwrite each other', async () => {
    const { owner } = tabs();
    const [one, two] = [owner(), owner()];
    await one.open(id);
    await two.open(id);
    await Promise.all([one.change('level', setLevel(-41)), two.change('name', rename('Loft'))]);
    await quiet();
    for (const tab of [one, two])
      expect(projectOf(tab)).toMatchObject({ name: 'Loft', rig: { levelDbfs: -41 } });
  });
});

type Path = (string | number)[];
type Node = Record<string, unknown>;
/** Every number of a project that can be edited. */
const numbersIn = (of: unknown, at: Path = []): Path[] =>
  typeof of === 'number'
    ? [at]
    : typeof of === 'object' && of !== null
      ? Object.entries(of).flatMap(([key, value]) =>
          numbersIn(value, [...at, Array.isArray(of) ? Number(key) : key]),
        )
      : [];
const put = (of: unknown, [key, ...rest]: Path, value: number): unknown =>
  key === undefined
    ? value
    : Array.isArray(of)
      ? of.map((item, i) => (i === key ? put(item, rest, value) : (item as unknown)))
      : { ...(of as Node), [key]: put((of as Node)[key], rest, value) };
const read = (of: unknown, path: Path) => path.reduce<unknown>((at, key) => (at as Node)[key], of);

it('of edits in two tabs at once none is lost, though each writes all that its screen showed', async () => {
  const { owner } = tabs();
  const [one, two] = [owner(), owner()];
  await Promise.all([one.open(id), two.open(id)]);
  // but for limits that bound each other: no field takes one beyond the other
  const paths = numbersIn(projectOf(one)).filter(
    (path) => path[0] !== 'version' && !['leastQ', 'mostQ'].includes(String(path.at(-1))),
  );
  const lost: string[] = [];
  let seed = 7;
  const random = (below: number) => (seed = (seed * 48271) % 2147483647) % below;
  for (let i = 0; i < 250; i++) {
    const a = paths[random(paths.length)]!;
    const b = paths[random(paths.length)]!;
    if (a.join() === b.join()) continue;
    const edit = (who: ProjectOwner, path: Path, value: number) => {
      const shown = projectOf(who);
      return who.change('an edit', () => put(shown, path, value) as Project);
    };
    await Promise.all([edit(one, a, 1000 + i), edit(two, b, 5000 + i)]);
    const stored = (await new ProjectRepository(database).open(id))!;
    if (read(stored, a) !== 1000 + i || read(stored, b) !== 5000 + i)
      lost.push(`${a.join('.')} and ${b.join('.')}`);
  }
  await quiet();
  expect(paths.length).toBeGreaterThan(150);
  expect(lost).toEqual([]);
  expect(projectOf(one)).toEqual(projectOf(two));
});

it('of ten steps in one tab that come faster than they are stored none is lost', async () => {
  const owner = tabs().owner();
  await owner.open(id);
  const before = projectOf(owner).rig.levelDbfs;
  const steps = Array.from({ length: 10 }, () =>
    owner.change('a step', (p) => setLevel(p.rig.levelDbfs - 1)(p)),
  );
  await Promise.all(steps);
  expect(projectOf(owner).rig.levelDbfs).toBe(before - 10);
});

it('a project that a newer program has stored is told, and left as it is', async () => {
  const newer = { ...(await database.projects.get(id))!.project, version: 999, shape: 'of later' };
  await database.projects.update(id, { project: newer as never });
  const owner = tabs().owner();
  await owner.open(id);
  expect(owner.store.getState()).toMatchObject({
    status: 'blocked',
    problem: expect.stringMatching(/newer/),
  });
  await expect(new ProjectRepository(database).change(id, 'x', rename('mine'))).rejects.toThrow(/newer/);
  expect((await database.projects.get(id))!.project).toEqual(newer);
});
