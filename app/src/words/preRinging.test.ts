import { expect, it } from 'vitest';
import { preRingingLines, preRingingSentence, preRingingWords } from './preRinging';

const octaves = [
  { centre: 63, aheadS: 0.02, aheadDb: -14.2, plainDb: -15 },
  { centre: 125, aheadS: 0.02, aheadDb: -9, plainDb: -29.6 },
  { centre: 1000, aheadS: 0.005, aheadDb: -50, plainDb: -60 },
];

it('names the octave of which most sounds ahead, by how much, and what it is held against', () => {
  expect(preRingingWords(octaves)).toBe('−9.0 dB at 125 Hz');
  expect(preRingingSentence(octaves)).toBe(
    'Of the 125 Hz octave, −9.0 dB of the filter’s energy comes more than 20 ms early; without a filter it is −29.6 dB.',
  );
  expect(preRingingLines(octaves).split('\n')).toHaveLength(3);
});

it('is none where no octave sounds further ahead than the analysis itself spreads it, or so little of it', () => {
  expect(preRingingWords([octaves[0]!, octaves[2]!])).toBe('none');
  expect(preRingingWords([])).toBe('none');
});
