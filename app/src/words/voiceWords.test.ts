import type { VoiceAtSeat } from '@pebble-hall/core/alignment';
import { expect, it } from 'vitest';
import { outWords, seatSentence, voiceSentence } from './voiceWords';

const seat = (change: Partial<VoiceAtSeat>): VoiceAtSeat => ({
  by: 0,
  laterS: 0.012,
  louderDb: 6.2,
  verdict: 'the voice',
  ...change,
});

it('tells who is heard at a seat, and why', () => {
  expect(seatSentence(seat({}), ['Fill left'])).toBe(
    'Fill left comes 12 ms after the talker, all of them 6 dB louder: the talker is heard first.',
  );
  expect(
    seatSentence(seat({ laterS: -0.02, louderDb: -3, verdict: 'a loudspeaker' }), ['Fill left']),
  ).toMatch(/20 ms before the talker, all of them 3 dB softer: it pulls/);
  expect(seatSentence(seat({ verdict: 'an echo' }), ['Fill left'])).toMatch(/echo/);
  expect(seatSentence(seat({ by: -1 }), [])).toBe('Only the talker is heard here.');
});

it('counts the seats that hear the voice, without those near it', () => {
  const pulled = seat({ verdict: 'a loudspeaker' });
  const near = seat({ verdict: 'near' });
  expect(voiceSentence([pulled, seat({}), near], [seat({}), seat({}), near])).toBe(
    'As it is set the talker is heard first at 1 of 2 seats; as proposed at all of them.',
  );
  expect(voiceSentence([pulled, pulled], [pulled, seat({})])).toMatch(/at 0 of 2 seats; as proposed at 1/);
  expect(voiceSentence([near], [near])).toMatch(/nobody needs help/);
});

it('names what falls out', () => {
  const pulled = seat({ verdict: 'a loudspeaker' });
  expect(outWords([seat({})], ['a'])).toBeNull();
  expect(outWords([pulled, pulled, pulled, pulled], ['a', 'b', 'c', 'd'])).toBe(
    'Out of the window: a; b; c and 1 more.',
  );
});
