import { expect, it } from 'vitest';
import { sizeWords } from './sizeWords';

it.each([
  [0, '0 KB'],
  [1234, '1.2 KB'],
  [266_000, '266 KB'],
  [7_448_000, '7.4 MB'],
  [28_000_000, '28 MB'],
  [2.5e9, '2.5 GB'],
])('%i bytes are %s', (bytes, words) => expect(sizeWords(bytes)).toBe(words));
