import { FormatError } from './formatError.js';
import { textLines } from './textLines.js';

/** A frequency response as text files hold it: Hz ascending, dB, degrees where given. */
export interface ResponseTable {
  frequency: Float64Array;
  levelDb: Float64Array;
  phaseDeg: Float64Array | null;
  /** comment lines and headings, in order, without their marks */
  comments: string[];
}

const NUMBER = /^[+-]?(\d+([.,]\d*)?|[.,]\d+)([eE][+-]?\d+)?$/;

/** How the commas of a text are meant: between columns, or within numbers. */
export const COMMA_READINGS = ['commas separate', 'decimal commas'] as const;
export type CommaReading = (typeof COMMA_READINGS)[number];

type Split = (line: string) => string[];

/**
 * All ways in which a text makes sense: usually one. Where commas separate columns and could be decimal commas as well
 * ("31,5, 1,2"), both, each with what it gives.
 * @throws FormatError naming the line where no reading makes sense
 */
export function responseReadings(
  text: string,
  fewest = 2,
): [{ reading: CommaReading; table: ResponseTable }, ...{ reading: CommaReading; table: ResponseTable }[]] {
  const decimal = readWith(text, fewest, splitDecimalCommas, () => null);
  let failure: unknown = null;
  const plain = readWith(text, fewest, splitRow, (error) => ((failure = error), null));
  const readings = [
    ...(plain ? [{ reading: 'commas separate' as const, table: plain }] : []),
    ...(decimal && !(plain && isAlike(plain, decimal))
      ? [{ reading: 'decimal commas' as const, table: decimal }]
      : []),
  ];
  const [first, ...others] = readings;
  if (!first) throw failure;
  return [first, ...others];
}

const isAlike = (a: ResponseTable, b: ResponseTable): boolean =>
  a.frequency.length === b.frequency.length &&
  a.frequency.every((f, i) => f === b.frequency[i] && a.levelDb[i] === b.levelDb[i]);

function readWith(
  text: string,
  fewest: number,
  split: Split,
  onError: (error: unknown) => null,
): ResponseTable | null {
  try {
    return readTable(text, fewest, split);
  } catch (error) {
    return onError(error);
  }
}

/**
 * Reads columns of frequency, level and optional phase. Columns stand apart by tabs, semicolons, spaces or commas; where
 * they do by anything but commas, a comma within a number is a decimal comma. Lines that start with anything but a digit,
 * sign or decimal mark are comments as long as no row has been read; after it, only those marked by * # ; " or // are.
 * @param fewest rows that must be there
 * @throws FormatError naming the line, or that commas can be read in two ways
 */
export function readResponseText(text: string, fewest = 2): ResponseTable {
  const [{ table }, ...others] = responseReadings(text, fewest);
  if (others.length > 0)
    throw new FormatError(
      'The commas of the file can be read in two ways: between columns, or as decimal commas. Save it with decimal points, or with semicolons between columns.',
    );
  return table;
}

function readTable(text: string, fewest: number, split: Split): ResponseTable {
  const comments: string[] = [];
  const rows: number[][] = [];
  textLines(text, 'a frequency response').forEach((raw, index) => {
    const line = raw.trim();
    if (line === '') return;
    const marked = /^(\*|#|;|"|\/\/|%|!)/.test(line);
    if (marked || (rows.length === 0 && !/^[+\-.,\d]/.test(line))) {
      comments.push(line.replace(/^(\*|#|;|"|\/\/|%|!)+\s*/, '').replace(/"$/, ''));
      return;
    }
    const cells = split(line);
    if (cells.length < 2 || cells.slice(0, 3).some((cell) => !NUMBER.test(cell))) {
      throw new FormatError(`Line ${index + 1} is not a row of frequency and level: "${line.slice(0, 60)}".`);
    }
    const values = cells.slice(0, 3).map((cell) => Number(cell.replace(',', '.')));
    if (values.some((v) => !Number.isFinite(v)))
      throw new FormatError(`Line ${index + 1} holds a number out of range.`);
    const last = rows.at(-1);
    if (last && values.length !== last.length) {
      throw new FormatError(
        `Line ${index + 1} has ${values.length} columns, the lines before it ${last.length}.`,
      );
    }
    if (!(values[0]! > 0))
      throw new FormatError(`Line ${index + 1}: the frequency ${cells[0]} is not above 0 Hz.`);
    if (last && values[0] === last[0])
      throw new FormatError(`Line ${index + 1}: the frequency ${cells[0]} Hz stands there twice.`);
    if (last && values[0]! < last[0]!) {
      throw new FormatError(
        `Line ${index + 1}: ${cells[0]} Hz is lower than the line before; frequencies must ascend.`,
      );
    }
    rows.push(values);
  });
  if (rows.length < fewest) {
    throw new FormatError(
      rows.length === 0
        ? 'No rows of frequency and level were found in the file.'
        : `Only ${rows.length} ${rows.length === 1 ? 'row' : 'rows'} of frequency and level; at least ${fewest} are needed.`,
    );
  }
  const column = (i: number) => Float64Array.from(rows, (row) => row[i]!);
  return {
    frequency: column(0),
    levelDb: column(1),
    phaseDeg: rows[0]!.length > 2 ? column(2) : null,
    comments,
  };
}

function splitRow(line: string): string[] {
  for (const separator of [/\t+/, /;/, /\s+/]) {
    if (!separator.test(line)) continue;
    const cells = line.split(separator).map((cell) => cell.trim());
    // "20, 1.5, -3": commas separate and spaces only decorate
    if (cells.some((cell) => cell.endsWith(','))) break;
    return cells.filter((cell, i) => cell !== '' || i < 2);
  }
  return line.split(',').map((cell) => cell.trim());
}

const WHOLE_OR_DECIMAL = /^[+-]?\d+(,\d+)?$/;

/** Cells of a row whose commas are decimal ones where they stand within a number; none where that makes no sense. */
function splitDecimalCommas(line: string): string[] {
  if (/[.;\t]/.test(line)) return [];
  const spaced = line.split(/,\s+/);
  if (spaced.length > 1 && spaced.every((cell) => WHOLE_OR_DECIMAL.test(cell))) return spaced;
  const parts = line.split(',').map((part) => part.trim());
  const areDecimals = parts.every((part, i) => (i % 2 === 0 ? /^[+-]?\d+$/ : /^\d+$/).test(part));
  if (!(parts.length >= 4 && parts.length % 2 === 0 && areDecimals)) return [];
  return parts.flatMap((part, i) => (i % 2 === 0 ? [`${part},${parts[i + 1]!}`] : []));
}

/**
 * Writes a response as tab-separated text with a heading; numbers with a decimal point.
 * @param comments lines put ahead, each after "* "
 */
export function writeResponseText(
  { frequency, levelDb, phaseDeg }: Pick<ResponseTable, 'frequency' | 'levelDb' | 'phaseDeg'>,
  comments: string[] = [],
): string {
  const rows = Array.from(frequency, (f, i) => {
    const cells = [f.toFixed(3), levelDb[i]!.toFixed(3)];
    if (phaseDeg) cells.push(phaseDeg[i]!.toFixed(2));
    return cells.join('\t');
  });
  const heading = `* Frequency (Hz)\tLevel (dB)${phaseDeg ? '\tPhase (degrees)' : ''}`;
  return [...comments.map((c) => `* ${c}`), heading, ...rows, ''].join('\n');
}
