import type { Project } from '@pebble-hall/core/project';
import type { Shape } from '@pebble-hall/core/shapes';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { changeTraces } from './changeTraces';
import { handlesOf, movedShapes, shapesOf, withShapes } from './shapeHandles';

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
  const trace = project.kept.find((k) => k.id === id && k.kind !== 'spectrum');
  const shapes = useMemo(
    () => (!trace ? [] : moved?.id === trace.id ? moved.shapes : shapesOf(trace)),
    [trace, moved],
  );
  const shelf = useMemo(
    () =>
      moved
        ? { ...project, kept: project.kept.map((k) => (k.id === moved.id ? withShapes(k, moved.shapes) : k)) }
        : project,
    [project, moved],
  );
  const onMove = useCallback(
    (handle: string, to: { hz: number; db: number | null }) => {
      if (!trace) return;
      const from = latest.current?.id === trace.id ? latest.current.shapes : shapesOf(trace);
      const next = { id: trace.id, shapes: movedShapes(from, handle, to) };
      latest.current = next;
      setMoved(next);
    },
    [trace],
  );
  const onSettle = useCallback(() => {
    const now = latest.current;
    if (!now) return;
    void changeTraces('shape moved', [now.id], (k) => withShapes(k, now.shapes)).then(() => setMoved(null));
  }, []);
  const handles = useMemo(
    () => ({ handles: handlesOf(shapes), onMove, onSettle }),
    [shapes, onMove, onSettle],
  );
  return { shelf, handles };
}
