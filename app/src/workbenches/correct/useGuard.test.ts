import { expect, it } from 'vitest';
import { atOnceWords, guardWords } from './useGuard';

const guard = { takesDb: 4.3, mostDb: 4.26, signals: 'full scale' as const, of: 'Sub 1', atOnce: null };
const atOnce = { feeds: 5, of: 'Sub 2', db: 9.68 };

it.each([
  ['full scale', guard, 'lowers all channels by 4.3 dB, for Sub 1'],
  ['full scale', { ...guard, takesDb: 0, mostDb: -2 }, 'lowers nothing: nothing goes above full scale'],
  ['full scale', null, 'follows with the filters'],
  ['off', guard, 'off: Sub 1 may clip by 4.3 dB'],
  ['off', { ...guard, mostDb: -2 }, 'off'],
  ['off', null, 'off'],
  ['full scale', 'memory A has changed.', 'not known: memory A has changed.'],
] as const)('the guard, for %s, with %j: %s', (on, what, words) => expect(guardWords(on, what)).toBe(words));

it('beside the guard, what all inputs together would ask for is told where it is more than full scale', () => {
  expect(atOnceWords({ ...guard, atOnce })).toBe(
    '; the same bass in all 5 inputs at once would drive Sub 2 to +9.7 dB',
  );
  expect(atOnceWords({ ...guard, atOnce: { ...atOnce, db: -1 } })).toBe('');
  expect(atOnceWords(guard)).toBe('');
  expect(atOnceWords('memory A has changed.')).toBe('');
});
