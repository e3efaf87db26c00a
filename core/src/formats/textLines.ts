import { FormatError } from './formatError.js';

/** Text files of numbers are no longer; what is longer is something else. */
export const MOST_TEXT = 8e6;
/** A line of a table is no longer; nor does anything here read more of one. */
const MOST_LINE = 20_000;

/**
 * Lines of a text file of others.
 * @param what it should be, as in "too large for a frequency response"
 * @throws FormatError where it is no text, too large, or has a line that is no line
 */
export function textLines(text: string, what: string): string[] {
  if (text.length > MOST_TEXT)
    throw new FormatError(
      `The file has ${Math.round(text.length / 1e6)} MB, too large for ${what}: up to ${MOST_TEXT / 1e6} MB are read.`,
    );
  if (text.includes('\u0000')) throw new FormatError('This is not a text file: it holds binary data.');
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/);
  const long = lines.findIndex((line) => line.length > MOST_LINE);
  if (long >= 0)
    throw new FormatError(
      `Line ${long + 1} has ${lines[long]!.length} characters, too many for ${what}: up to ${MOST_LINE} are read.`,
    );
  return lines;
}
