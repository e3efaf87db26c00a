import type { Target, TargetHandle } from '../correct/index.js';
import { FormatError } from './formatError.js';
import { readResponseText } from './responseText.js';

const MOST_HANDLES = 64;
const MOST_DB = 60;
const KEPT = 'kept';

/** A target's shape as text that reads back: handles as frequency and level, the rest in comments. */
export function writeTargetText(
  name: string,
  { handles, lowLiftDb, highTiltDb, keepsRollOff }: Target,
): string {
  return [
    `* Target curve: ${name.replace(/[\r\n]+/g, ' ')}`,
    `* Low-frequency lift (dB): ${lowLiftDb}`,
    `* High-frequency tilt (dB per octave): ${highTiltDb}`,
    `* Natural roll-off of the loudspeaker: ${keepsRollOff ? KEPT : 'not kept'}`,
    '* Frequency (Hz)\tLevel (dB)',
    ...[...handles].sort((a, b) => a.frequency - b.frequency).map((h) => `${h.frequency}\t${h.levelDb}`),
    '',
  ].join('\n');
}

/**
 * Reads a target: rows of frequency and level; many rows, as a measured curve has, are thinned to handles a third of an
 * octave apart.
 * @throws FormatError naming what is wrong
 */
export function readTargetText(text: string): { name: string | null; target: Target } {
  const { frequency, levelDb, comments } = readResponseText(text, 1);
  const bad = levelDb.findIndex((v) => !(Math.abs(v) <= MOST_DB));
  if (bad >= 0)
    throw new FormatError(
      `The level ${levelDb[bad]} dB at ${frequency[bad]} Hz is out of range; a target stays within ${MOST_DB} dB of 0.`,
    );
  let handles: TargetHandle[] = Array.from(frequency, (f, i) => ({
    frequency: f,
    levelDb: levelDb[i]!,
  })).filter((h) => h.frequency >= 5 && h.frequency <= 40_000);
  if (handles.length > MOST_HANDLES) {
    let last = 0;
    handles = handles.filter((h) => h.frequency >= last * 2 ** (1 / 3) && ((last = h.frequency), true));
  }
  if (handles.length === 0) throw new FormatError('No row of the file lies between 5 Hz and 40 kHz.');
  const number = (start: string) => {
    const line = comments.find((c) => c.startsWith(start));
    const value = Number(line?.split(':').at(-1));
    return line && Number.isFinite(value) ? Math.min(24, Math.max(-24, value)) : 0;
  };
  const title = comments
    .find((c) => c.startsWith('Target curve:'))
    ?.slice('Target curve:'.length)
    .trim();
  return {
    name: title ? title.slice(0, 80) : null,
    target: {
      handles,
      lowLiftDb: number('Low-frequency lift'),
      highTiltDb: number('High-frequency tilt'),
      keepsRollOff: comments.some(
        (c) => c.startsWith('Natural roll-off') && c.split(':').at(-1)!.trim() === KEPT,
      ),
      lowExtensionHz: null,
      highExtensionHz: null,
    },
  };
}
