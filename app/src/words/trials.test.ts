import type { BlindTrial } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { trialResult, trialSentence } from './trials';

const trial = (over: Partial<BlindTrial>): BlindTrial => ({
  id: 't',
  kind: 'preference',
  startedAt: 0,
  spotName: 'Home spot',
  material: 'speech',
  candidates: [
    { source: 'as-found', name: 'as found' },
    { source: 'v', name: 'First variant' },
  ],
  answers: [],
  matched: true,
  ...over,
});

it('tells a clear preference from a draw and from chance', () => {
  const clear = trial({ answers: [1, 1, 1, 1, 1, 1, 1, 1, 1, 0] });
  expect(trialResult(clear).chance).toBeCloseTo((2 * 11) / 1024, 12);
  expect(trialSentence(clear)).toBe(
    'First variant was preferred in 9 of 10 turns. Guessing alone gives as much with a probability of 2.1 %, so chance hardly explains it.',
  );
  expect(trialSentence(trial({ answers: [0, 1] }))).toMatch(
    /^A draw after 2 turns: as found 1, First variant 1/,
  );
  expect(trialSentence(trial({ answers: [1, 1, 0] }))).toMatch(/may well be chance/);
});

it('counts right answers of same-or-different trials against one half', () => {
  const heard = trial({ kind: 'same or different', answers: [1, 1, 1, 1, 1, 1, 1, 1] });
  expect(trialResult(heard).chance).toBeCloseTo(1 / 256, 12);
  expect(trialSentence(heard)).toMatch(/Right in 8 of 8 turns.*0\.4 %, so a difference was heard/);
  expect(trialSentence(trial({ kind: 'same or different', answers: [1, 0, 1, 0] }))).toMatch(
    /no difference is shown/,
  );
  expect(trialSentence(trial({}))).toBe('No turn was answered.');
});
