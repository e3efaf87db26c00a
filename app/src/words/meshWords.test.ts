import { expect, it } from 'vitest';
import { mendedSentence } from './meshWords';

it('says what was mended, each by its number', () => {
  expect(mendedSentence({ joined: 0, doubled: 0, tiny: 0, filled: [] })).toBe('Nothing had to be mended.');
  expect(mendedSentence({ joined: 1, doubled: 2, tiny: 0, filled: [0.4] })).toBe(
    'Mended: 1 corner joined to the one beside it; 2 doubled faces left out; 1 flat hole closed, 0.40 m².',
  );
  expect(mendedSentence({ joined: 0, doubled: 0, tiny: 3, filled: [0.5, 1] })).toBe(
    'Mended: 3 faces without an area left out; 2 flat holes closed, 1.50 m² in all.',
  );
});
