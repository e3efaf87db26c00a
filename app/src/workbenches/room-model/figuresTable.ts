import { OCTAVES } from '@pebble-hall/core/room';
import type { ReceiverReading } from '@pebble-hall/core/runs';
import { figureOf, hasOctaves, octaveText, RUN_FIGURE_KEYS, RUN_FIGURES } from '../../words/runWords';

/** Figures that have no octaves, and are of all sources. */
const ALONE = RUN_FIGURE_KEYS.filter((f) => !hasOctaves(f) && f !== 'direct');
/** As a table has it; nothing where nothing is known. */
const written = (v: number) => (Number.isFinite(v) ? v.toFixed(3) : '');

/** All figures of a run at all its receivers. */
export function figuresTable(name: string, names: readonly string[], readings: readonly ReceiverReading[]) {
  return {
    title: `${name}: figures`,
    columns: [
      'Receiver',
      ...ALONE.map((f) => `${RUN_FIGURES[f].short}${RUN_FIGURES[f].unit ? `, ${RUN_FIGURES[f].unit}` : ''}`),
      ...RUN_FIGURE_KEYS.filter(hasOctaves).flatMap((f) =>
        OCTAVES.map(
          (_, o) =>
            `${RUN_FIGURES[f].short} ${octaveText(o)}${RUN_FIGURES[f].unit ? `, ${RUN_FIGURES[f].unit}` : ''}`,
        ),
      ),
    ],
    rows: readings.map((r, i) => [
      names[i]!,
      ...ALONE.map((f) => written(figureOf(r, f, 'mean'))),
      ...RUN_FIGURE_KEYS.filter(hasOctaves).flatMap((f) => OCTAVES.map((_, o) => written(figureOf(r, f, o)))),
    ]),
  };
}
