import type { Project } from '@pebble-hall/core/project';
import { shapesLevelDb, type Shape, type ShapeReading } from '@pebble-hall/core/shapes';
import { LIBRARY_GRID } from '@pebble-hall/core/traces';
import { useMemo } from 'react';
import type { LiveCurve } from '../../charts/drawLive';
import { askedOf, useShapeReading } from '../../services/readings';
import { useLibrary } from '../../services/useLibrary';

/** A reading of the open project with what it found, and the last few of its family with what they found. */
export function useReadings(project: Project, id: string | null) {
  const reading = project.readings.find((r) => r.id === id) ?? null;
  const others = useMemo(
    () =>
      reading && reading.family !== ''
        ? project.readings.filter((r) => r.family === reading.family && r.id !== reading.id).slice(-FAMILY)
        : [],
    [project.readings, reading],
  );
  const ids = useMemo(
    () => [...new Set([...(reading ? [reading] : []), ...others].map((r) => r.traceId))],
    [reading, others],
  );
  const seen = useLibrary(project, ids);
  const curve = reading ? (seen.get(reading.traceId)?.curve ?? null) : null;
  const asked = (r: typeof reading | undefined) => (r ? askedOf(r, seen.get(r.traceId)?.curve) : null);
  const found = useShapeReading(asked(reading));
  // a fixed number of them, as each is worked out by itself
  const first = useShapeReading(asked(others[0])).value;
  const second = useShapeReading(asked(others[1])).value;
  const third = useShapeReading(asked(others[2])).value;
  const family = useMemo(
    () =>
      others.flatMap(({ name }, i) => {
        const value: ShapeReading | null | undefined = [first, second, third][i];
        return value ? [{ name, shapes: value.shapes.map((f) => f.shape), levelDb: value.levelDb }] : [];
      }),
    [others, first, second, third],
  );
  return { reading, curve, found, family };
}
const FAMILY = 3;

const levelOf = (shapes: readonly Shape[], levelDb: number, rate: number | null) =>
  shapesLevelDb(shapes, LIBRARY_GRID, rate).map((v) => v + levelDb);

/** What was found, drawn over the curve that it was found in; the others of its family behind it. */
export function foundCurves({ reading, found, family }: ReturnType<typeof useReadings>): LiveCurve[] {
  const { value } = found;
  if (!reading || !value) return [];
  const shapes = value.shapes.map((f) => f.shape);
  return [
    ...family.map((f) => ({
      colour: 'soft',
      values: levelOf(f.shapes, f.levelDb, reading.rate),
      width: 1.4,
      dash: [2, 4],
    })),
    { colour: 'ink', values: levelOf(shapes, value.levelDb, reading.rate), width: 1.6, dash: [6, 4] },
  ];
}
