import { seededRandom } from '@pebble-hall/core/signal';
import { describe, expect, it } from 'vitest';
import { answerOf, nextTurn } from './blind';

describe('nextTurn', () => {
  it('puts every candidate behind a stone once, each place as often as another', () => {
    const random = seededRandom(4);
    const counts = [0, 0, 0];
    for (let i = 0; i < 3000; i++) {
      const { order } = nextTurn('preference', 3, random);
      expect([...order].sort()).toEqual([0, 1, 2]);
      counts[order[0]!] = counts[order[0]!]! + 1;
    }
    counts.forEach((c) => expect(Math.abs(c - 1000)).toBeLessThan(100)); // 3.9 standard deviations
  });

  it('is the same in half of the same-or-different turns, and tells two candidates apart in the others', () => {
    const random = seededRandom(5);
    let same = 0;
    for (let i = 0; i < 2000; i++) {
      const turn = nextTurn('same or different', 2, random);
      if (turn.kind !== 'same or different') throw new Error('another kind');
      expect(turn.order[0] === turn.order[1]).toBe(turn.same);
      if (turn.same) same++;
    }
    expect(Math.abs(same - 1000)).toBeLessThan(90); // 4 standard deviations
  });
});

it('keeps the candidate behind the stone, or whether the answer was right', () => {
  expect(answerOf({ kind: 'preference', order: [2, 0, 1] }, 0)).toBe(2);
  expect(answerOf({ kind: 'same or different', order: [0, 0], same: true }, 'same')).toBe(1);
  expect(answerOf({ kind: 'same or different', order: [0, 1], same: false }, 'same')).toBe(0);
  expect(answerOf({ kind: 'same or different', order: [0, 1], same: false }, 'different')).toBe(1);
});
