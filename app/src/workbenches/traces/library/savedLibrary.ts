import { curveLevelDb, curvePhaseDeg } from '@pebble-hall/core/live';
import type { Project } from '@pebble-hall/core/project';
import { LIBRARY_GRID, type LibraryCurve } from '@pebble-hall/core/traces';
import { signedDb } from '../../../charts/chartMath';
import type { SavedPlot } from '../../../charts/plotSvg';
import { savedResponse } from '../../../charts/savedResponse';
import { traceName } from '../../../services/libraryCurves';
import type { TableData } from '../../../services/tableText';

interface Drawn {
  id: string;
  colour: string;
  curve: LibraryCurve;
  dash: number[];
}

/** Levels of the traces that are shown, as they are looked at, for print. */
export const savedLibrary = (
  project: Project,
  drawn: readonly Drawn[],
  view: { fromHz: number; toHz: number; lowDb: number; highDb: number },
  smoothing: number,
): SavedPlot => {
  const plot = savedResponse(
    `${project.name}, traces`,
    `1/${smoothing} octave`,
    'dB',
    view,
    LIBRARY_GRID,
    drawn.map(({ id, colour, curve }) => ({
      id,
      label: traceName(project, id) ?? '',
      role: 'measured' as const,
      colour,
      levels: curveLevelDb(curve),
    })),
    null,
  );
  return { ...plot, lines: plot.lines.map((line, i) => ({ ...line, dash: drawn[i]!.dash.join(' ') })) };
};

export const libraryTitle = ({ name }: Pick<Project, 'name'>): string => `${name}, traces`;

/** Level and phase of the traces that are shown, at every point of the library. */
export function libraryTable(project: Project, drawn: readonly Drawn[]): TableData {
  const columns = drawn.flatMap(({ id, curve }) => {
    const name = traceName(project, id) ?? '';
    const level = { name: `${name}, dB`, values: curveLevelDb(curve), digits: 2 };
    return curve.hasPhase
      ? [level, { name: `${name}, degrees`, values: curvePhaseDeg(curve), digits: 1 }]
      : [level];
  });
  return {
    title: libraryTitle(project),
    columns: ['Frequency, Hz', ...columns.map((c) => c.name)],
    rows: Array.from(LIBRARY_GRID, (hz, n) => [
      hz.toFixed(2),
      ...columns.map(({ values, digits }) =>
        Number.isFinite(values[n]!) ? signedDb(values[n]!, digits).replace('+', '') : '',
      ),
    ]),
  };
}
