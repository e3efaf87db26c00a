import type { Random } from '@pebble-hall/core/signal';

/** One turn of a blind trial. */
export type Turn =
  | { kind: 'preference'; /** candidate behind each stone */ order: number[] }
  | {
      kind: 'same or different';
      /** candidates behind the first and the second stone */ order: [number, number];
      same: boolean;
    };

/** A turn in random order: all candidates once behind as many stones, or a pair that is the same or not, half and half. */
export function nextTurn(kind: Turn['kind'], candidates: number, random: Random): Turn {
  const shuffled = Array.from({ length: candidates }, (_, i) => i);
  for (let i = shuffled.length - 1; i > 0; i--) {
    const j = Math.floor(random.uniform() * (i + 1));
    [shuffled[i], shuffled[j]] = [shuffled[j]!, shuffled[i]!];
  }
  if (kind === 'preference') return { kind, order: shuffled };
  const same = random.uniform() < 0.5;
  return { kind, same, order: [shuffled[0]!, same ? shuffled[0]! : shuffled[1]!] };
}

/** What is kept of an answer: the candidate preferred, or whether "same" or "different" was right. */
export function answerOf(turn: Turn, choice: number | 'same' | 'different'): number {
  if (turn.kind === 'preference') return turn.order[choice as number]!;
  return (choice === 'same') === turn.same ? 1 : 0;
}
