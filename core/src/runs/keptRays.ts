import { OCTAVES } from '../room/index.js';
import type { RayGroup } from '../tracing/index.js';
import { ROWS_PER_RECEIVER, type RunRays } from './run.js';

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
    directions: row.directions ?? null,
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
    directions: group.directions && Float32Array.from(group.directions),
    sent: list(group.sent),
    absorbed: list(group.absorbed),
    escaped: list(group.escaped),
    cut: list(group.cut),
    leaks,
    leakAt,
  };
}
