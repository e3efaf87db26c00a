import type { VoiceAtSeat } from '@pebble-hall/core/alignment';

const ms = (s: number) => `${(1000 * s).toFixed(0)} ms`.replace('-', '−');
const db = (v: number) => `${Math.abs(v).toFixed(0)} dB ${v < 0 ? 'softer' : 'louder'}`;

/** How many seats hear the voice first, among those that are not near. */
export function voiceCount(seats: readonly VoiceAtSeat[]): { first: number; of: number } {
  const far = seats.filter((s) => s.verdict !== 'near');
  return { first: far.filter((s) => s.verdict === 'the voice').length, of: far.length };
}

/** At how many seats the voice is heard from where it is, now and as proposed. */
export function voiceSentence(now: readonly VoiceAtSeat[], then: readonly VoiceAtSeat[]): string {
  const [a, b] = [voiceCount(now), voiceCount(then)];
  if (a.of === 0) return 'Every seat is near the talker: nobody needs help.';
  const before = `As it is set the talker is heard first at ${a.first} of ${a.of} seats`;
  if (b.first === b.of) return `${before}; as proposed at all of them.`;
  return `${before}; as proposed at ${b.first}.`;
}

/** What one hears at a seat. @param names of loudspeakers */
export function seatSentence(seat: VoiceAtSeat, names: readonly string[]): string {
  const { by, laterS, louderDb, verdict } = seat;
  if (by < 0) return 'Only the talker is heard here.';
  const who = names[by] ?? 'A loudspeaker';
  const how = `${who} comes ${ms(Math.abs(laterS))} ${laterS < 0 ? 'before' : 'after'} the talker, all of them ${db(louderDb)}`;
  switch (verdict) {
    case 'near':
      return `${how}: it is near the talker, and left out.`;
    case 'the voice':
      return `${how}: the talker is heard first.`;
    case 'an echo':
      return `${how}: too late, it is heard as an echo.`;
    case 'a loudspeaker':
      return `${how}: it pulls the voice to itself.`;
  }
}

/** Seats that fall out of the window, by name. */
export function outWords(seats: readonly VoiceAtSeat[], names: readonly string[]): string | null {
  const out = names.filter(
    (_, i) => seats[i]!.verdict === 'an echo' || seats[i]!.verdict === 'a loudspeaker',
  );
  if (out.length === 0) return null;
  const shown = out.slice(0, 3).join('; ');
  return `Out of the window: ${shown}${out.length > 3 ? ` and ${out.length - 3} more` : ''}.`;
}
