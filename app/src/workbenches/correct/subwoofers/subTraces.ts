import { traceRef, type TraceRef } from '@pebble-hall/core/jobs';
import { fittedOf, usableSpots, type Project } from '@pebble-hall/core/project';

/** Traces of all subwoofers at the spots that have all of them: `[sub][spot]`. */
export function subTraces(project: Project): { ids: string[]; traces: TraceRef[][] } {
  const subs = fittedOf(project).filter((l) => l.role === 'subwoofer');
  const own = subs.map((l) => usableSpots(project, l.id).averaged);
  const spots = project.place.spots.filter((spot) => own.every((o) => o.some((s) => s.spotId === spot.id)));
  return {
    ids: subs.map((l) => l.id),
    traces: own.map((o) =>
      spots.map((spot) =>
        traceRef(
          o.find((s) => s.spotId === spot.id)!,
          project.calibrations,
        ),
      ),
    ),
  };
}
