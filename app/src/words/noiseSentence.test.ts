import { expect, it } from 'vitest';
import { noiseSentence } from './noiseSentence';

it('says what it is, where, how strong, and what to look for', () => {
  expect(noiseSentence({ kind: 'hum', mainsHz: 50, multiples: [50, 100, 150, 250], riseDb: 21.4 })).toBe(
    'Hum at 50 Hz and its multiples (100, 150, 250 Hz), 21 dB over the rest: look for an earth loop or a dimmer.',
  );
  expect(noiseSentence({ kind: 'tone', frequency: 3150.2, riseDb: 18 })).toMatch(
    /^A steady tone at 3\.15 kHz, 18 dB/,
  );
  expect(noiseSentence({ kind: 'rumble', belowHz: 35.48, riseDb: 16 })).toMatch(/^Rumble below 35\.5 Hz/);
});
