import { worstAhead, type AheadInOctave } from '@pebble-hall/core/correct';
import { formatDb, formatHz } from '../charts/chartMath';

/** Pre-ringing of a filter in one line: the octave of which most sounds ahead of the arrival. */
export function preRingingWords(octaves: AheadInOctave[]): string {
  const worst = worstAhead(octaves);
  return worst ? `${formatDb(worst.aheadDb)} at ${formatHz(worst.centre)}` : 'none';
}

/** The same as a sentence, with what it is held against. */
export function preRingingSentence(octaves: AheadInOctave[]): string {
  const worst = worstAhead(octaves);
  return worst
    ? `Of the ${formatHz(worst.centre)} octave, ${formatDb(worst.aheadDb)} of the filter’s energy comes more than ${1000 * worst.aheadS} ms early; without a filter it is ${formatDb(worst.plainDb)}.`
    : 'Nothing of the filter sounds ahead of the arrival.';
}

/** Every octave as a line each. */
export const preRingingLines = (octaves: AheadInOctave[]): string =>
  octaves
    .map(
      ({ centre, aheadS, aheadDb, plainDb }) =>
        `${formatHz(centre)}: ${formatDb(aheadDb)} over ${1000 * aheadS} ms early (without a filter ${formatDb(plainDb)})`,
    )
    .join('\n');
