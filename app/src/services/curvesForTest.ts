import { plainView, type KeptTrace } from '@pebble-hall/core/project';
import { LIBRARY_GRID, type LibraryCurve } from '@pebble-hall/core/traces';

/** A curve of the same value at every frequency, for tests. */
export const flatCurve = (re: number, change: Partial<LibraryCurve> = {}): LibraryCurve => ({
  frequency: LIBRARY_GRID,
  re: LIBRARY_GRID.map(() => re),
  im: LIBRARY_GRID.map(() => 0),
  coherence: LIBRARY_GRID.map(() => NaN),
  hasPhase: true,
  ...change,
});

/** A trace that came in a file, for tests. */
export const traceOfFile = (id: string, change: Partial<KeptTrace> = {}): KeptTrace => ({
  id,
  kind: 'transfer function',
  name: id,
  keptAt: 0,
  note: '',
  folder: '',
  tags: [],
  arrayId: `array-${id}`,
  origin: { by: 'file', fileName: '', columns: [], hasPhase: true, notes: [] },
  view: plainView(),
  ...change,
});
