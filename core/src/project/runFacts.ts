import { roomFacets } from '../place/index.js';
import type { RoomRun, RunFace } from '../runs/index.js';
import type { Place } from './place.js';

/** The faces of a place as a run takes them. */
export const runFaces = (place: Pick<Place, 'shape' | 'roomMesh'>): RunFace[] =>
  roomFacets(place).map(({ name, corners, absorption, scattering }) => ({
    name,
    corners: corners.map(({ x, y, z }) => ({ x, y, z })),
    absorption: [...absorption],
    scattering: [...scattering],
  }));

/** What is no longer as it was when a run was made. */
export interface ChangedSince {
  /** names of surfaces that swallow or scatter otherwise; null where the shape is another one */
  surfaces: string[] | null;
  air: boolean;
}

/** What a run does not know of; null when the room is as it was. */
export function changedSince(
  run: Pick<RoomRun, 'faces' | 'air'>,
  place: Pick<Place, 'shape' | 'roomMesh' | 'temperatureC' | 'relativeHumidityPercent'>,
): ChangedSince | null {
  const now = runFaces(place);
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
  const air =
    run.air.temperatureC !== place.temperatureC ||
    run.air.relativeHumidityPercent !== place.relativeHumidityPercent;
  const isShape =
    now.length === run.faces.length && now.every((f, i) => same(f.corners, run.faces[i]!.corners));
  if (!isShape) return { surfaces: null, air };
  const surfaces = now
    .filter(
      (f, i) =>
        !same(f.absorption, run.faces[i]!.absorption) || !same(f.scattering, run.faces[i]!.scattering),
    )
    .map((f) => f.name);
  return surfaces.length > 0 || air ? { surfaces: [...new Set(surfaces)], air } : null;
}
