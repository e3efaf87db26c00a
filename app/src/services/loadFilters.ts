import { loudspeakerById, type MemoryLoad, type Project } from '@pebble-hall/core/project';
import { repository } from '../store';

/** Filters of a load, one per output, from what was kept. */
export async function filtersOf(project: Pick<Project, 'place'>, load: MemoryLoad): Promise<Float32Array[]> {
  const outputs = load.outputs?.length ?? 12;
  const filters: Float32Array[] = Array.from({ length: outputs }, () => new Float32Array(0));
  for (const [id, filterId] of Object.entries(load.filters)) {
    const array = await repository().array(filterId);
    const output = loudspeakerById(project.place, id)?.output;
    if (!array || !output)
      throw new Error('a filter of this load is no longer in this browser; load the memory again.');
    filters[output - 1] = array.samples;
  }
  return filters;
}
