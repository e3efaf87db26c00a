import { facetsOf } from '../place/index.js';
import { OCTAVES } from '../room/index.js';
import type { RayGroup } from '../tracing/index.js';
import type { Place } from './place.js';
import { ROWS_PER_RECEIVER, type RoomRun, type RunFace, type RunRays } from './roomRuns.js';

/** The faces of a place as a run takes them. */
export const runFaces = ({ shape }: Pick<Place, 'shape'>): RunFace[] =>
  facetsOf(shape).map(({ name, corners, absorption, scattering }) => ({
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
  place: Pick<Place, 'shape' | 'temperatureC' | 'relativeHumidityPercent'>,
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

/** A kept group of rays as it is computed with. */
export function rayGroupOf(row: RunRays): RayGroup {
  const { data, bins, rays, leaks, leakAt } = row;
  const receivers = data.length / bins / ROWS_PER_RECEIVER;
  const energies = OCTAVES.length * receivers * bins;
  return {
    rays,
    bins,
    energy: data.subarray(0, energies),
    lateral: data.subarray(energies, 2 * energies),
    counts: data.subarray(2 * energies),
    absorbed: Float64Array.from(row.absorbed),
    escaped: Float64Array.from(row.escaped),
    cut: Float64Array.from(row.cut),
    sent: Float64Array.from(row.sent),
    leaks,
    leakAt,
  };
}

/** The same, to be kept. */
export function raysOfGroup(
  of: Pick<RunRays, 'runId' | 'source' | 'group' | 'emission' | 'powerDb' | 'delayS'>,
  group: RayGroup,
): RunRays {
  const { energy, lateral, counts, rays, bins, leaks, leakAt } = group;
  const data = new Float32Array(energy.length + lateral.length + counts.length);
  data.set(energy);
  data.set(lateral, energy.length);
  data.set(counts, energy.length + lateral.length);
  const list = (values: ArrayLike<number>) => Array.from(values);
  return {
    ...of,
    rays,
    bins,
    data,
    sent: list(group.sent),
    absorbed: list(group.absorbed),
    escaped: list(group.escaped),
    cut: list(group.cut),
    leaks,
    leakAt,
  };
}
