import type { Reading } from '@pebble-hall/core/project';
import {
  comparePublished,
  type FigureRow,
  type FoundShape,
  type ShapeReading,
} from '@pebble-hall/core/shapes';
import { formatHz, signedDb } from '../../charts/chartMath';
import type { TableData } from '../../services/tableText';
import { SHAPE_NAMES } from '../../words/shapeWords';

/** A row of the table: one figure of one shape. */
export interface ReadRow extends FigureRow {
  /** of the shape among those that are wanted */
  shape: number;
  name: string;
}

/** What a shape is called in a table, with what was found of its kind. */
export function foundName({ shape }: FoundShape): string {
  const name = SHAPE_NAMES[shape.kind];
  return 'family' in shape ? `${name}, ${shape.family}` : name;
}

export const rowsOf = ({ published, tolerance }: Reading, { shapes }: ShapeReading): ReadRow[] =>
  shapes.flatMap((found, shape) =>
    comparePublished(found, published[shape]!, tolerance).map((row) => ({
      ...row,
      shape,
      name: foundName(found),
    })),
  );

const three = (value: number) => String(Number(value.toPrecision(3)));

/** A figure with its unit. */
export function figureText(figure: FigureRow['figure'], value: number | null): string {
  if (value === null) return '';
  switch (figure) {
    case 'frequency':
      return formatHz(value);
    case 'gain':
      return `${signedDb(value, 2)} dB`;
    case 'bandwidth':
      return `${three(value)} oct`;
    case 'q':
      return three(value);
    case 'order':
      return String(value);
  }
}

/** How sure a figure is. */
export function withinText({ figure, within }: FigureRow): string {
  if (figure === 'order') return '';
  if (within === null) return 'not known';
  const size = Math.max(within, 1e-12);
  const digits = Math.max(0, Math.min(3, 1 - Math.floor(Math.log10(size))));
  const unit = { frequency: ' Hz', gain: ' dB', q: '', bandwidth: ' oct' }[figure];
  return `± ${within < 0.0005 ? '0.001' : within.toFixed(digits)}${unit}`;
}

export function differenceText({ figure, difference }: FigureRow): string {
  if (difference === null) return '';
  if (figure === 'order') return signedDb(difference, 0);
  return figure === 'gain' ? `${signedDb(difference, 2)} dB` : `${signedDb(difference, 1)} %`;
}

export const VERDICTS = { inside: 'inside', outside: 'outside', 'not sure': 'not sure' } as const;

/** Everything as a table: with the raw figures, and how the trace was read. */
export function readingData(reading: Reading, found: ShapeReading): TableData {
  return {
    title: reading.name,
    columns: [
      'Shape',
      'Figure',
      'Published',
      'Found',
      'Two standard errors',
      'Difference',
      'Tolerance',
      'Verdict',
    ],
    rows: rowsOf(reading, found).map((row) => [
      row.name,
      row.figure,
      figureText(row.figure, row.published),
      figureText(row.figure, row.found),
      withinText(row),
      differenceText(row),
      toleranceText(reading, row.figure),
      row.verdict ?? '',
    ]),
  };
}

export function toleranceText({ tolerance }: Reading, figure: FigureRow['figure']): string {
  switch (figure) {
    case 'frequency':
      return `± ${tolerance.hzPercent} %`;
    case 'gain':
      return `± ${tolerance.gainDb} dB`;
    case 'order':
      return '';
    default:
      return `± ${tolerance.qPercent} %`;
  }
}

/** What was found, as a sentence. */
export function readingSentence(reading: Reading, found: ShapeReading): string {
  const rows = rowsOf(reading, found);
  const held = rows.filter((r) => r.verdict !== null);
  const outside = held.filter((r) => r.verdict === 'outside').length;
  const unsure = held.filter((r) => r.verdict === 'not sure').length;
  const left = `What was found leaves ${found.leftDb < 0.005 ? 'less than 0.01' : found.leftDb.toFixed(2)} dB of the curve unexplained`;
  if (held.length === 0) return `${left}. Type what is published beside it to hold it against a tolerance.`;
  const inside = held.length - outside - unsure;
  const parts = [
    ...(inside > 0 ? [`${inside} inside`] : []),
    ...(outside > 0 ? [`${outside} outside`] : []),
    ...(unsure > 0 ? [`${unsure} too near the edge to say`] : []),
  ];
  return `${left}; of ${held.length} published figures ${parts.join(', ')}.`;
}
