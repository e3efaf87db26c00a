import { keptById, lookOf, withLook, type KeptTrace, type Project } from '@pebble-hall/core/project';
import type { Shape } from '@pebble-hall/core/shapes';
import type { PlotHandle } from '../../../charts/PlotHandles';
import { SHAPE_NAMES } from '../../../words/shapeWords';

/** The shapes of a trace that a hand may move: its own, where it is made of shapes, or those that act on it. */
export const shapesOf = ({ origin, view }: Pick<KeptTrace, 'origin' | 'view'>): readonly Shape[] =>
  origin.by === 'computed' && origin.formula.op === 'shapes' ? origin.formula.shapes : view.shapes;

/** The same of any trace of the library. */
export function shapesIn(project: Pick<Project, 'kept' | 'sweepLooks'>, id: string): readonly Shape[] {
  const trace = keptById(project.kept).get(id);
  return trace ? shapesOf(trace) : (lookOf(project, id)?.shapes ?? []);
}

/** The project with other shapes in their place. */
export function withShapes<P extends Pick<Project, 'kept' | 'sweepLooks'>>(
  project: P,
  id: string,
  shapes: Shape[],
): P {
  const isOfShapes = ({ origin }: KeptTrace) => origin.by === 'computed' && origin.formula.op === 'shapes';
  const trace = keptById(project.kept).get(id);
  if (!trace || !isOfShapes(trace)) return withLook(project, id, { shapes });
  const origin = { by: 'computed' as const, formula: { op: 'shapes' as const, of: [], shapes } };
  return { ...project, kept: project.kept.map((k) => (k.id === id ? { ...k, origin } : k)) };
}

/** Handles of shapes: at their gain where they have one, at 0 dB where they have none. */
export const handlesOf = (shapes: readonly Shape[]): PlotHandle[] =>
  shapes.map((s, i) => ({
    id: String(i),
    label: `${SHAPE_NAMES[s.kind]} ${i + 1}`,
    hz: s.hz,
    db: 'gainDb' in s ? s.gainDb : null,
  }));

const MOST_DB = 60;

/** The shapes with one of them moved by hand: to a whole tenth of a dB, and to three figures of a frequency. */
export const movedShapes = (
  shapes: readonly Shape[],
  id: string,
  { hz, db }: { hz: number; db: number | null },
): Shape[] =>
  shapes.map((s, i) => {
    if (String(i) !== id) return s;
    const at = Number(hz.toPrecision(hz >= 1000 ? 4 : 3));
    return 'gainDb' in s && db !== null
      ? { ...s, hz: at, gainDb: Math.max(-MOST_DB, Math.min(MOST_DB, Math.round(10 * db) / 10)) }
      : { ...s, hz: at };
  });
