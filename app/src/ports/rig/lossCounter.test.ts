import { expect, it } from 'vitest';
import { lossCounter } from './lossCounter';

const blocks = (count: number, missedFrom = Infinity, gapFrom = Infinity) =>
  Array.from({ length: count }, (_, i) => ({
    fromFrame: 1000 + 512 * i + (i >= gapFrom ? 128 : 0),
    missed: i >= missedFrom ? 1 : 0,
  }));
const counted = (list: ReturnType<typeof blocks>) => {
  const counter = lossCounter(512, 1000);
  for (const block of list) counter.add(block);
  return counter.count();
};

it('counts a loss once, however many blocks come after it', () => {
  expect(counted(blocks(90))).toBe(0);
  expect(counted(blocks(90, 10))).toBe(1);
  expect(counted(blocks(90, Infinity, 10))).toBe(1);
  expect(counted(blocks(90, 10, 10))).toBe(1);
  expect(counted(blocks(90).filter((_, i) => i !== 30 && i !== 60))).toBe(2);
});
