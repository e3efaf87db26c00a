import { expect, it } from 'vitest';
import { marginSentence, reasonSentence, verdictSentence, verdictWord } from './sweepReasons';

const bang = { atS: 2.13, durationS: 0.2, fromHz: 88, toHz: 355, levelDb: 20 };

it('names the kind, the time and the band of a disturbance, and what to do', () => {
  expect(reasonSentence({ kind: 'disturbed', disturbance: bang })).toBe(
    'a bang at 2.1 s of the sweep, 88 Hz to 355 Hz: repeat it',
  );
  expect(reasonSentence({ kind: 'disturbed', disturbance: { ...bang, toHz: 80, fromHz: 20 } })).toMatch(
    /^a rumble/,
  );
  expect(reasonSentence({ kind: 'disturbed', disturbance: { ...bang, durationS: 2 } })).toMatch(/^a noise/);
});

it('says in one line whether a channel is loud enough and by how much', () => {
  expect(marginSentence(34.4)).toBe('loud enough, 34 dB above the noise');
  expect(marginSentence(23.2)).toBe('23 dB above the noise, 7 dB short');
  expect(marginSentence(12)).toMatch(/too quiet.*18 dB short/);
  expect(marginSentence(-Infinity)).toBe('nothing arrived');
});

it('joins reasons to a sentence and shortens them for a cell', () => {
  const verdict = {
    state: 'failed' as const,
    snrDb: 20,
    band: null,
    reasons: [
      { kind: 'clipped' as const, count: 3, atS: 1 },
      { kind: 'disturbed' as const, disturbance: bang },
    ],
  };
  expect(verdictSentence(verdict)).toMatch(/clipped \(3 times.*; a bang/);
  expect(verdictWord(verdict)).toBe('clipped');
  expect(verdictWord({ ...verdict, state: 'good', reasons: [], snrDb: 33.6 })).toBe('34');
});
