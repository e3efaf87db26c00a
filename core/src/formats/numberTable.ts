import { FormatError } from './formatError.js';
import { textLines } from './textLines.js';

/** Columns of numbers as a text file holds them, and what stands over them. */
export interface NumberTable {
  /** each as long as the others */
  columns: Float64Array[];
  /** of the columns, as the last line before the numbers gives them; empty where it does not */
  headings: string[];
  /** the lines before the numbers, without their marks */
  comments: string[];
  separator: 'tab' | 'semicolon' | 'comma' | 'space';
  decimal: 'point' | 'comma';
}

const SEPARATORS = [
  ['tab', /\t/],
  ['semicolon', /;/],
  ['comma', /,/],
  ['space', /\s+/],
] as const;
const POINT = /^[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?$/;
const COMMA = /^[+-]?(\d+(,\d*)?|,\d+)([eE][+-]?\d+)?$/;

/**
 * Reads columns of numbers of any separator and decimal sign: the reading is taken in which the most lines are rows of as many
 * numbers, two at least.
 * @throws FormatError where no reading gives two rows, or the file is no text
 */
export function readNumberTable(text: string): NumberTable {
  const lines = textLines(text, 'a table of numbers')
    .map((l) => l.trim())
    .filter((l) => l !== '');
  let best: NumberTable | null = null;
  for (const [separator, mark] of SEPARATORS)
    for (const decimal of ['point', 'comma'] as const) {
      if (separator === 'comma' && decimal === 'comma') continue;
      const table = readAs(lines, separator, mark, decimal);
      const cells = (t: NumberTable) => t.columns.length * t.columns[0]!.length;
      if (table && (!best || cells(table) > cells(best))) best = table;
    }
  if (!best)
    throw new FormatError(
      'No rows of at least two numbers were found in the file. It may be no table of a response.',
    );
  return best;
}

function readAs(
  lines: readonly string[],
  separator: NumberTable['separator'],
  mark: RegExp,
  decimal: NumberTable['decimal'],
): NumberTable | null {
  const isNumber = decimal === 'point' ? POINT : COMMA;
  const rows: number[][] = [];
  const before: string[] = [];
  for (const line of lines) {
    const cells = line
      .split(mark)
      .map((c) => c.trim().replace(/^"|"$/g, ''))
      .filter((c, i, all) => c !== '' || i < all.length - 1);
    const isRow = cells.length >= 2 && cells.every((c) => isNumber.test(c));
    if (!isRow) {
      if (rows.length === 0) before.push(line);
      continue;
    }
    if (rows.length > 0 && cells.length !== rows[0]!.length) continue;
    rows.push(cells.map((c) => Number(c.replace(',', '.'))));
  }
  if (rows.length < 2 || rows.flat().some((v) => !Number.isFinite(v))) return null;
  const comments = before.map((l) => l.replace(/^(\*|#|;|"|\/\/|%|!)+\s*/, ''));
  const last =
    comments
      .at(-1)
      ?.split(mark)
      .map((c) => c.trim().replace(/^"|"$/g, '')) ?? [];
  const count = rows[0]!.length;
  return {
    columns: Array.from({ length: count }, (_, i) => Float64Array.from(rows, (row) => row[i]!)),
    headings: last.length === count ? last : [],
    comments,
    separator,
    decimal,
  };
}
