import { FormatError, type NumberTable } from '../formats/index.js';
import { dbOfGain, gainOfDb, interpolateLog } from '../signal/index.js';
import { LIBRARY_GRID, type LibraryCurve } from './libraryCurve.js';

/** What a column holds, and in what. */
export type ColumnMeaning =
  | 'frequency in Hz'
  | 'frequency in kHz'
  | 'level in dB'
  | 'magnitude'
  | 'phase in degrees'
  | 'phase in radians'
  | 'real part'
  | 'imaginary part'
  | 'coherence, 0 to 1'
  | 'coherence in %'
  | 'nothing';
export const COLUMN_MEANINGS: readonly ColumnMeaning[] = [
  'frequency in Hz',
  'frequency in kHz',
  'level in dB',
  'magnitude',
  'phase in degrees',
  'phase in radians',
  'real part',
  'imaginary part',
  'coherence, 0 to 1',
  'coherence in %',
  'nothing',
];

const HEADINGS: [RegExp, ColumnMeaning][] = [
  [/khz/i, 'frequency in kHz'],
  [/^f$|freq|\bhz\b/i, 'frequency in Hz'],
  [/coh|γ/i, 'coherence, 0 to 1'],
  [/\brad/i, 'phase in radians'],
  [/phase|phi|deg|°/i, 'phase in degrees'],
  [/imag/i, 'imaginary part'],
  [/\breal\b/i, 'real part'],
  [/\bdb\b|spl|level|gain/i, 'level in dB'],
  [/mag|amp|\|h\|/i, 'magnitude'],
];

const isAscending = (v: Float64Array) => v[0]! >= 0 && v.every((x, i) => i === 0 || x > v[i - 1]!);

/**
 * What the columns of a table most likely hold: by their headings where these say it, else by what is in them. Each meaning at
 * most once; what is not understood is nothing.
 */
export function likelyMeanings({
  columns,
  headings,
}: Pick<NumberTable, 'columns' | 'headings'>): ColumnMeaning[] {
  const found: ColumnMeaning[] = columns.map((_, i) => {
    const heading = headings[i] ?? '';
    return HEADINGS.find(([mark]) => mark.test(heading))?.[1] ?? 'nothing';
  });
  // a meaning that two columns claim is the first one's
  found.forEach((m, i) => {
    if (m !== 'nothing' && found.indexOf(m) < i) found[i] = 'nothing';
  });
  const has = (kind: string) => found.some((m) => m.startsWith(kind));
  if (!has('frequency')) {
    const at = columns.findIndex((c, i) => found[i] === 'nothing' && isAscending(c));
    // up to 20 or 24 in steps is kHz: no response ends at 24 Hz
    if (at >= 0)
      found[at] =
        columns[at]!.at(-1)! <= 48 && columns[at]!.length > 4 ? 'frequency in kHz' : 'frequency in Hz';
  }
  if (headings.length > 0 && (has('level') || has('magnitude') || has('real'))) return found;
  const free = () => found.findIndex((m) => m === 'nothing');
  if (!has('level') && !has('magnitude') && !has('real') && free() >= 0) found[free()] = 'level in dB';
  for (let i = free(); i >= 0 && headings.length === 0; i = found.indexOf('nothing', i + 1)) {
    const column = columns[i]!;
    if (!has('coherence') && column.every((v) => v >= 0 && v <= 1)) found[i] = 'coherence, 0 to 1';
    else if (!has('phase') && column.some((v) => Math.abs(v) > 4)) found[i] = 'phase in degrees';
    else if (!has('phase')) found[i] = 'phase in radians';
  }
  return found;
}

/**
 * A curve of the library from a table: brought to the library's points between its ends, level in dB and phase as it goes on over
 * log frequency.
 * @param meanings of the columns, in their order
 * @throws FormatError where frequency or level is missing, twice there, or what they hold cannot be
 */
export function curveOfTable(
  { columns }: Pick<NumberTable, 'columns'>,
  meanings: readonly ColumnMeaning[],
): LibraryCurve {
  const column = (...names: ColumnMeaning[]) => {
    const found = meanings.flatMap((m, i) =>
      names.includes(m) ? [{ meaning: m, values: columns[i]! }] : [],
    );
    if (found.length > 1)
      throw new FormatError(`Two columns are said to hold the ${found[0]!.meaning}. Choose one.`);
    return found[0];
  };
  const f = column('frequency in Hz', 'frequency in kHz');
  if (!f) throw new FormatError('No column is said to hold the frequency. Choose which one does.');
  const order = [...f.values.keys()].sort((a, b) => f.values[a]! - f.values[b]!);
  const sorted = (values: Float64Array, by = 1) => Float64Array.from(order, (i) => by * values[i]!);
  const frequency = sorted(f.values, f.meaning === 'frequency in kHz' ? 1000 : 1);
  if (!(frequency[0]! > 0)) {
    // 0 Hz has no place on a logarithmic axis
    if (frequency[0] === 0 && frequency.length > 2 && frequency[1]! > 0)
      return curveOfTable({ columns: columns.map((c) => sorted(c).subarray(1)) }, meanings);
    throw new FormatError('A frequency is not above 0 Hz.');
  }
  if (frequency.some((v, i) => i > 0 && v === frequency[i - 1]))
    throw new FormatError('A frequency stands there twice. Is it the right column?');
  const { levelDb, phaseDeg } = levelAndPhase(column, sorted);
  const grid = LIBRARY_GRID.filter((v) => v >= frequency[0]! * 0.9999 && v <= frequency.at(-1)! * 1.0001);
  if (grid.length < 2)
    throw new FormatError(
      'The file holds nothing between 20 Hz and 20 kHz. Is the unit of the frequency right?',
    );
  const level = interpolateLog(frequency, levelDb, grid);
  const phase = phaseDeg && interpolateLog(frequency, unwrapped(phaseDeg), grid);
  const coherence = column('coherence, 0 to 1', 'coherence in %');
  const by = coherence?.meaning === 'coherence in %' ? 0.01 : 1;
  const sure = coherence && interpolateLog(frequency, sorted(coherence.values, by), grid);
  if (sure?.some((v) => v < -0.001 || v > 1.001))
    throw new FormatError('Coherence lies between 0 and 1. Choose another column for it, or another unit.');
  const radians = grid.map((_, n) => ((phase?.[n] ?? 0) * Math.PI) / 180);
  return {
    frequency: grid,
    re: level.map((v, n) => gainOfDb(v) * Math.cos(radians[n]!)),
    im: level.map((v, n) => gainOfDb(v) * Math.sin(radians[n]!)),
    coherence: sure ?? grid.map(() => NaN),
    hasPhase: phase !== null,
  };
}

type Column = (...names: ColumnMeaning[]) => { meaning: ColumnMeaning; values: Float64Array } | undefined;

function levelAndPhase(
  column: Column,
  sorted: (values: Float64Array, by?: number) => Float64Array,
): { levelDb: Float64Array; phaseDeg: Float64Array | null } {
  const [re, im] = [column('real part'), column('imaginary part')];
  if (re && im) {
    const [a, b] = [sorted(re.values), sorted(im.values)];
    return {
      levelDb: a.map((v, n) => dbOfGain(Math.hypot(v, b[n]!))),
      phaseDeg: a.map((v, n) => (Math.atan2(b[n]!, v) * 180) / Math.PI),
    };
  }
  if (re || im) throw new FormatError('A real part wants an imaginary part beside it.');
  const level = column('level in dB', 'magnitude');
  if (!level) throw new FormatError('No column is said to hold the level. Choose which one does.');
  const values = sorted(level.values);
  if (level.meaning === 'magnitude' && values.some((v) => !(v > 0)))
    throw new FormatError('A magnitude is above 0. Is the column a level in dB?');
  const levelDb = level.meaning === 'magnitude' ? values.map(dbOfGain) : values;
  if (levelDb.some((v) => Math.abs(v) > 400))
    throw new FormatError('A level lies beyond 400 dB. Is it the right column?');
  const phase = column('phase in degrees', 'phase in radians');
  return {
    levelDb,
    phaseDeg: phase ? sorted(phase.values, phase.meaning === 'phase in radians' ? 180 / Math.PI : 1) : null,
  };
}

/** A phase that goes on beyond half a turn. */
function unwrapped(phase: Float64Array): Float64Array {
  const out = Float64Array.from(phase);
  for (let n = 1; n < out.length; n++) out[n] = out[n]! - 360 * Math.round((out[n]! - out[n - 1]!) / 360);
  return out;
}
