import { formatDb } from '../../charts/chartMath';

/** What is heard, where, and through what. */
export interface HeardWhere {
  /** null until it is there */
  piece: string | null;
  through: 'room' | 'output' | 'headphones';
  left: string;
  right: string;
  /** others that play what the left one plays */
  also: readonly string[];
  spot: string;
  /** headphones that were chosen; null for none */
  headphones: { name: string; targetName: string } | null;
  /** distance of headphones from their target, dB; null until it is worked out */
  distance: { before: number; after: number } | null;
}

/** The way of the sound in one sentence. */
export function whereWords({
  piece,
  through,
  left,
  right,
  also,
  spot,
  headphones,
  distance,
}: HeardWhere): string {
  const what = piece ?? 'The piece';
  if (through === 'output')
    return `${what} through the filters alone, on this computer’s output: for the real room.`;
  if (through === 'room') {
    const names = [...new Set([left, right, ...also])];
    const by = [names.slice(0, -1).join(', '), names.at(-1)].filter(Boolean).join(' and ');
    return `${what} through ${by}, as one microphone at ${spot} hears it: measured responses, so in the room’s own sound, and not in stereo.`;
  }
  if (!headphones) return 'Choose headphones below, from the library or by a file of their response.';
  const worth = distance
    ? `${distance.before.toFixed(1)} dB from the target as they are, ${distance.after.toFixed(1)} dB corrected`
    : 'being worked out';
  return `${what} on ${headphones.name}, towards ${headphones.targetName}: ${worth}. Above 12 kHz, where every ear differs, nothing is done.`;
}

/** Louder by less than this is about as loud, LU. */
const ALIKE_DB = 0.2;

/** What was done to the loudness of candidates, or which is louder where nothing was. */
export function loudnessWords(
  names: string[],
  { trimDb, loudness }: { trimDb: number[]; loudness: number[] },
  matched: boolean,
): string {
  if (matched)
    return `Matched in loudness: ${names.map((name, i) => `${name} ${formatDb(trimDb[i]!)}`).join(', ')}.`;
  const heard = loudness.filter(Number.isFinite);
  const most = Math.max(...heard);
  const over = most - Math.min(...heard);
  return `Not matched: ${
    heard.length === 0 || over < ALIKE_DB
      ? 'all are about as loud.'
      : `${names[loudness.indexOf(most)]} is louder by ${over.toFixed(1)} dB than the quietest, and louder sounds better.`
  }`;
}
