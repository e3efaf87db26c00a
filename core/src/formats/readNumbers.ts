import { needImpulse, readImpulseText, type TextImpulse } from './impulseText.js';
import { readNumberTable, type NumberTable } from './numberTable.js';

/** What a text of numbers holds: one of both. */
export type Numbers = { impulse: TextImpulse; table: null } | { impulse: null; table: NumberTable };

/**
 * An impulse response where the text holds one, else a table: two columns whose first one goes from 0 in steps of less than a
 * millisecond are no frequencies.
 * @throws FormatError where it holds neither
 */
export function readNumbers(text: string): Numbers {
  try {
    const impulse = readImpulseText(text);
    needImpulse(impulse.samples);
    return { impulse, table: null };
  } catch {
    return { impulse: null, table: readNumberTable(text) };
  }
}
