import { variantOf } from '@pebble-hall/core/project';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { netLoftProject } from '../../../../demo/netLoftProject';
import { HeldCorrection } from './heldCorrection';

const stored = variantOf(netLoftProject()).correction;
const moved = (maxBoostDb: number) => ({ on: stored, next: { ...stored, maxBoostDb } });

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

/** What was drawn, draw by draw. */
function drawings(held: HeldCorrection): (number | null)[] {
  const drawn: (number | null)[] = [];
  held.subscribe(() => drawn.push(held.drawn()?.next.maxBoostDb ?? null));
  return drawn;
}

test('a move is drawn once, when its designs have come', () => {
  const held = new HeldCorrection();
  const drawn = drawings(held);
  held.move(moved(1));
  vi.advanceTimersByTime(10);
  expect(drawn).toEqual([]);
  expect(held.nextOf(stored).maxBoostDb).toBe(1);
  held.draw();
  vi.advanceTimersByTime(1000);
  expect(drawn).toEqual([1]);
});

test('a hand is not held back by slow designs', () => {
  const held = new HeldCorrection();
  const drawn = drawings(held);
  held.move(moved(1));
  vi.advanceTimersByTime(30);
  held.move(moved(2));
  vi.advanceTimersByTime(11);
  expect(drawn).toEqual([2]);
});

test('a hand that lets go is drawn at once; what could not be stored is taken back', () => {
  const held = new HeldCorrection();
  const drawn = drawings(held);
  held.move(moved(1));
  held.letGo(moved(3));
  expect(drawn).toEqual([3]);
  held.takeBack();
  expect(drawn).toEqual([3, null]);
  expect(held.nextOf(stored)).toBe(stored);
});

test('what a hand made of another stored state does not come back', () => {
  const held = new HeldCorrection();
  held.move(moved(1));
  const other = { ...stored };
  expect(held.nextOf(other)).toBe(other);
});
