import { expect, it } from 'vitest';
import { shareStructure } from './shareStructure';

const before = {
  name: 'loft',
  spots: [
    { id: 'a', at: { x: 1 } },
    { id: 'b', at: { x: 2 } },
  ],
  empty: null,
};

it('gives what was there where all is alike', () => {
  expect(shareStructure(before, structuredClone(before))).toBe(before);
});

it('keeps the identity of every part that is alike, beside one that is not', () => {
  const next = structuredClone(before);
  next.spots[1]!.at.x = 3;
  const shared = shareStructure(before, next);
  expect(shared).toEqual(next);
  expect(shared.spots[0]).toBe(before.spots[0]);
  expect(shared.spots[1]).not.toBe(before.spots[1]);
  expect(before.spots[1]!.at.x).toBe(2);
});

it('notices what is gone, what is new and what is of another kind', () => {
  const { empty: _empty, ...less } = structuredClone(before);
  expect(shareStructure(before, less)).toEqual(less);
  expect(shareStructure(less, structuredClone(before))).toEqual(before);
  expect(shareStructure({ a: [1] }, { a: { 0: 1 } })).toEqual({ a: { 0: 1 } });
  expect(shareStructure([1, 2, 3], [1, 2])).toEqual([1, 2]);
  expect(shareStructure({ a: -0 }, { a: 0 })).toEqual({ a: 0 });
});
