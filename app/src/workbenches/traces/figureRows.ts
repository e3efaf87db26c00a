import {
  FIGURE_OCTAVES,
  FIGURES,
  overSpots,
  type FigureName,
  type FigureOverSpots,
  type OctaveFigures,
} from '@pebble-hall/core/acoustics';
import type { TableData } from '../../services/tableText';

/** How each figure is called and written; Ts and times in ms and s, D50 in %. */
const WRITTEN: Record<FigureName, { name: string; scale: number; digits: number }> = {
  edt: { name: 'EDT, s', scale: 1, digits: 2 },
  t20: { name: 'T20, s', scale: 1, digits: 2 },
  t30: { name: 'T30, s', scale: 1, digits: 2 },
  c50: { name: 'C50, dB', scale: 1, digits: 1 },
  c80: { name: 'C80, dB', scale: 1, digits: 1 },
  d50: { name: 'D50, %', scale: 100, digits: 0 },
  ts: { name: 'Ts, ms', scale: 1000, digits: 0 },
};

export type FigureTable = Record<FigureName, FigureOverSpots[]>;

/** Every figure of every octave over the spots. */
export const figuresOverSpots = (spots: OctaveFigures[][]): FigureTable =>
  Object.fromEntries(
    FIGURES.map((name) => [name, FIGURE_OCTAVES.map((_, o) => overSpots(spots.map((s) => s[o]![name])))]),
  ) as FigureTable;

/** The octaves by their nominal names. */
export const OCTAVE_NAMES = ['63 Hz', '125 Hz', '250 Hz', '500 Hz', '1 kHz', '2 kHz', '4 kHz', '8 kHz'];

/** Mean and spread of each figure in each octave; a dash where the range is too small, and why in `whyMissing`. */
export function figureRows(table: FigureTable): TableData {
  return {
    title: 'Room figures',
    columns: ['Mean ± spread', ...OCTAVE_NAMES],
    rows: FIGURES.map((figure) => {
      const { name, scale, digits } = WRITTEN[figure];
      return [
        name,
        ...table[figure].map(({ mean, spread, count }) => {
          if (count === 0) return '–';
          const value = (mean * scale).toFixed(digits).replace('-', '\u2212');
          return count === 1 ? value : `${value} ± ${(spread * scale).toFixed(digits)}`;
        }),
      ];
    }),
  };
}

/** Why figures are missing, in one sentence; null where all are there. */
export function whyMissing(table: FigureTable): string | null {
  const gaps = FIGURES.flatMap((figure) =>
    table[figure].flatMap(({ missing }, o) =>
      missing ? [{ figure, octave: OCTAVE_NAMES[o]!, ...missing }] : [],
    ),
  );
  if (gaps.length === 0) return null;
  const worst = gaps.reduce((a, b) => (b.needsDb - b.rangeDb < a.needsDb - a.rangeDb ? b : a));
  const name = WRITTEN[worst.figure].name.split(',')[0]!;
  const octaves = OCTAVE_NAMES.filter((name) => gaps.some((g) => g.octave === name)).join(', ');
  return `Some figures are missing at ${octaves}: the decay does not stand far enough over the noise. ${name} at ${worst.octave} needs ${worst.needsDb} dB and has ${Math.max(0, Math.round(worst.rangeDb))} dB. A longer or louder sweep gives more.`;
}
