import { expect, it } from 'vitest';
import type { KeptTrace } from '@pebble-hall/core/project';
import { foundRows, movedTraces, orderedAs, type LibraryRow } from './libraryRows';

const row = (id: string, change: Partial<LibraryRow>): LibraryRow => ({
  id,
  name: id,
  folder: '',
  tags: [],
  keptAt: 0,
  kind: 'live',
  look: '',
  ...change,
});
const rows = [
  row('sweep', { kind: 'sweep', folder: 'Mic walk, First round', name: 'Left at Home spot' }),
  row('old', { name: 'Row 10', keptAt: 1 }),
  row('new', { name: 'Row 9', keptAt: 2, tags: ['bass'] }),
  row('filed', { name: 'Sub', folder: 'Tuesday' }),
];
const ids = (found: LibraryRow[]) => found.map((r) => r.id);

it('what lies in no folder comes first, newest first; the walk last', () => {
  expect(ids(foundRows(rows, '', 'newest first'))).toEqual(['new', 'old', 'filed', 'sweep']);
  expect(ids(foundRows(rows, '', 'by name'))).toEqual(['new', 'old', 'filed', 'sweep']);
});

it('is searched by words, in names, folders and tags', () => {
  expect(ids(foundRows(rows, 'row', 'newest first'))).toEqual(['new', 'old']);
  expect(ids(foundRows(rows, 'bass row', 'newest first'))).toEqual(['new']);
  expect(ids(foundRows(rows, 'tuesday', 'newest first'))).toEqual(['filed']);
  expect(ids(foundRows(rows, 'walk left', 'newest first'))).toEqual(['sweep']);
  expect(foundRows(rows, 'nothing of this', 'newest first')).toEqual([]);
});

it('searches five thousand in a moment', () => {
  const many = Array.from({ length: 5000 }, (_, i) => row(`r${i}`, { name: `Row ${i}`, keptAt: i }));
  expect(foundRows(many, 'row 4999', 'newest first')).toHaveLength(1);
});

const kept = (...names: string[]) =>
  names.map((name) => ({ id: name, folder: name === 'd' ? 'Tuesday' : '' })) as unknown as KeptTrace[];
const order = (traces: KeptTrace[]) => traces.map((k) => k.id).join('');

it('traces are put ahead of another one or behind it, in its folder, in their order', () => {
  expect(order(movedTraces(kept('a', 'b', 'c', 'd'), ['c', 'a'], 'd', true))).toBe('bacd');
  const behind = movedTraces(kept('a', 'b', 'c', 'd'), ['a'], 'd', false);
  expect(order(behind)).toBe('bcda');
  expect(behind[3]!.folder).toBe('Tuesday');
  expect(order(movedTraces(kept('a', 'b'), ['a'], 'gone', true))).toBe('ab');
  expect(order(movedTraces(kept('a', 'b'), ['a', 'b'], 'b', true))).toBe('ab');
});

it('the order in which traces are seen becomes their own, those that are not seen stay where they were', () => {
  expect(order(orderedAs(kept('a', 'b', 'c', 'd'), ['d', 'sweep', 'a', 'c']))).toBe('dbac');
});

it('in their own order rows stand as they are, folder by folder', () => {
  expect(ids(foundRows(rows, '', 'own order'))).toEqual(['old', 'new', 'filed', 'sweep']);
});
