import 'fake-indexeddb/auto';
import { writeProjectFile, type Project } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { netLoftProject } from '../../demo/netLoftProject';
import { PebbleDatabase } from '../../app/src/store/database';
import { ProjectRepository } from '../../app/src/store/projectRepository';
import { meantOnly } from '../../app/src/store/meantOnly';
import { Tally, times } from './tally';

type Node = Record<string, unknown>;
const paths = (of: unknown, at: string[] = []): string[][] =>
  typeof of === 'number'
    ? [at]
    : typeof of === 'object' && of !== null
      ? Object.entries(of).flatMap(([k, v]) => paths(v, [...at, k]))
      : [];
const put = (of: unknown, [key, ...rest]: string[], value: number): unknown =>
  key === undefined
    ? value
    : Array.isArray(of)
      ? of.map((item, i) => (String(i) === key ? put(item, rest, value) : (item as unknown)))
      : { ...(of as Node), [key]: put((of as Node)[key], rest, value) };
const read = (of: unknown, path: string[]) => path.reduce<unknown>((at, key) => (at as Node)[key], of);

it('edits of two tabs that both write all that they show are both there', { timeout: 600_000 }, () => {
  const tally = new Tally('two tabs');
  const whole = netLoftProject();
  const all = paths(whole);
  for (let i = 0; i < times(1000); i++) {
    const [a, b] = [tally.pick(all), tally.pick(all)];
    if (a.join() === b.join()) continue;
    const stored = put(whole, b, 77);
    const meant = put(whole, a, 88);
    const next = meantOnly({ seen: whole as unknown, meant, stored, made: meant });
    tally.attack(`${a.join('.')} and ${b.join('.')}`, read(next, a) === 88 && read(next, b) === 77);
  }
  expect(tally.told()).toEqual([]);
});

it('a disk that is full at any moment leaves what was stored, whole', { timeout: 600_000 }, async () => {
  const tally = new Tally('full disk');
  const database = new PebbleDatabase('full');
  const repository = new ProjectRepository(database);
  const id = await repository.takeInShipped(writeProjectFile(netLoftProject(), []));
  const plain = IDBObjectStore.prototype.put;
  let count = 0;
  for (let i = 0; i < times(500); i++) {
    const before = (await repository.open(id))!;
    const failsAt = 1 + tally.random(6);
    let puts = 0;
    IDBObjectStore.prototype.put = function (this: IDBObjectStore, ...args: Parameters<typeof plain>) {
      if (++puts === failsAt) throw new DOMException('full', 'QuotaExceededError');
      return plain.apply(this, args);
    };
    const array = {
      id: `a${++count}`,
      kind: 'trace' as const,
      rate: 48_000,
      zero: 0,
      samples: new Float32Array(64),
    };
    const change = (p: Project) => ({ ...p, name: `name ${count}` });
    const isStored = await repository.change(id, 'x', change, { arrays: [array] }).then(
      () => true,
      () => false,
    );
    IDBObjectStore.prototype.put = plain;
    const after = (await repository.open(id))!;
    const isThere = (await repository.array(array.id)) !== undefined;
    tally.attack(
      `put ${failsAt} of change ${i}`,
      isStored ? after.name === `name ${count}` && isThere : after.name === before.name && !isThere,
      `told ${isStored}, is ${after.name}, array ${isThere}`,
    );
  }
  expect(tally.told()).toEqual([]);
});
