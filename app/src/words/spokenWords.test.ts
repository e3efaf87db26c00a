import { existsSync } from 'node:fs';
import { expect, it } from 'vitest';
import { SPOKEN_WORDS, wordsFor } from './spokenWords';

it.each([
  ['Left', 1, ['left']],
  ['Surround right', 5, ['surround', 'right']],
  ['Sub 2', 7, ['sub', '2']],
  ['Center', 3, ['centre']],
  ['Pulpit', 9, ['output', '9']],
  ['', 4, ['output', '4']],
  ['Pulpit', 63, ['output']],
])('speaks "%s" on output %i as %j', (name, output, words) => {
  expect(wordsFor(name, output)).toEqual(words);
});

it('has a sound for every word', () => {
  const there = (word: string) => existsSync(new URL(`../../public/spoken/${word}.flac`, import.meta.url));
  expect(SPOKEN_WORDS.filter((word) => !there(word))).toEqual([]);
});
