import { keptById, type Project } from '@pebble-hall/core/project';
import type { Shape } from '@pebble-hall/core/shapes';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { changeProject } from '../../../services/changeProject';
import { handlesOf, movedShapes, shapesIn, withShapes } from './shapeHandles';

/**
 * The shapes of a trace as handles on its plot. While one is moved the library shows it moved; it is stored when it is let go.
 * @param id of the trace that is chosen alone; null for none
 */
export function useShapeHandles(project: Project, id: string | null) {
  const [moved, setMoved] = useState<{ id: string; shapes: Shape[] } | null>(null);
  const latest = useRef(moved);
  useEffect(() => {
    latest.current = moved;
  });
  const isCurve = id !== null && keptById(project.kept).get(id)?.kind !== 'spectrum';
  const shapes = useMemo(
    () => (!isCurve ? [] : moved?.id === id ? moved.shapes : shapesIn(project, id)),
    [project, id, isCurve, moved],
  );
  const shelf = useMemo(
    () => (moved ? withShapes(project, moved.id, moved.shapes) : project),
    [project, moved],
  );
  const onMove = useCallback(
    (handle: string, to: { hz: number; db: number | null }) => {
      if (!isCurve) return;
      const from = latest.current?.id === id ? latest.current.shapes : shapesIn(project, id);
      const next = { id, shapes: movedShapes(from, handle, to) };
      latest.current = next;
      setMoved(next);
    },
    [project, id, isCurve],
  );
  const onSettle = useCallback(() => {
    const now = latest.current;
    if (!now) return;
    void changeProject('shape moved', (p) => withShapes(p, now.id, now.shapes)).then(() => setMoved(null));
  }, []);
  const handles = useMemo(
    () => ({ handles: handlesOf(shapes), onMove, onSettle }),
    [shapes, onMove, onSettle],
  );
  return { shelf, handles };
}
