import { settingChanges, type OutputSettings, type ProcessorState } from '@pebble-hall/core/processing';
import type { MemoryLoad, Project } from '@pebble-hall/core/project';

/** Settings that the processor has otherwise than a load meant them to be; nothing when the memory holds something else. */
export function besideOf(load: MemoryLoad | null, state: ProcessorState | null) {
  const memory = state?.memories.find((m) => m.letter === load?.letter);
  if (!load?.outputs || !memory || 'empty' in memory || !sameFilters(load.outputs, memory.outputs)) return [];
  return memory.checksum === load.checksum ? [] : settingChanges(load.outputs, memory.outputs);
}

/** Whether what was loaded is no longer in its memory: it is empty, or holds other filters; null while it holds them, or is not known. */
export function goneFrom(load: MemoryLoad | null, state: ProcessorState | null): 'empty' | 'other' | null {
  const memory = state?.memories.find((m) => m.letter === load?.letter);
  if (!load || !memory) return null;
  if ('empty' in memory) return 'empty';
  if (memory.checksum === load.checksum) return null;
  // where all settings are as meant and the checksum is not, the filters are others of the same size
  return besideOf(load, state).length > 0 ? null : 'other';
}

/** Whether outputs have the same filters, as far as their sizes tell. */
export const sameFilters = (a: OutputSettings[], b: OutputSettings[]) =>
  a.every((o, i) => o.taps === b[i]?.taps && o.sections.length === b[i].sections.length);

/** The name of what a memory holds that this project did not load: overwritten, it is gone. Null where there is nothing such. */
export function foreignIn(
  { loads }: Pick<Project, 'loads'>,
  state: ProcessorState | null,
  letter: string,
): string | null {
  const memory = state?.memories.find((m) => m.letter === letter);
  if (!memory || 'empty' in memory) return null;
  // settings that were changed since are still the load's; other filters are not
  const isOurs = loads.some(
    (l) =>
      l.letter === letter &&
      (l.checksum === memory.checksum || (l.outputs !== null && sameFilters(l.outputs, memory.outputs))),
  );
  return isOurs ? null : memory.name || 'something without a name';
}
