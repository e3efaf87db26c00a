import { plainView, type KeptTrace } from '@pebble-hall/core/project';

/** A trace that comes into the library now, seen as it is, in no folder unless it says so. */
export const newTrace = (
  of: Pick<KeptTrace, 'kind' | 'name' | 'arrayId' | 'origin'> & Partial<Pick<KeptTrace, 'id' | 'folder'>>,
): KeptTrace => ({
  id: crypto.randomUUID(),
  keptAt: Date.now(),
  note: '',
  folder: '',
  tags: [],
  view: plainView(),
  ...of,
});
