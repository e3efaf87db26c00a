import type { KeptTrace } from '@pebble-hall/core/project';
import { changeProject } from '../../../services/changeProject';

/** Changes some traces of the library, undoably. */
export const changeTraces = (
  label: string,
  ids: readonly string[],
  change: (trace: KeptTrace) => KeptTrace,
): Promise<boolean> =>
  changeProject(label, (p) => ({ ...p, kept: p.kept.map((k) => (ids.includes(k.id) ? change(k) : k)) }));

/** Takes traces out of the library; those that rest on them are broken until that is undone. */
export const removeTraces = (ids: readonly string[]): Promise<boolean> =>
  changeProject(ids.length === 1 ? 'trace removed' : `${ids.length} traces removed`, (p) => {
    const { spectrum } = p.live;
    const noiseId = spectrum.noiseId !== null && ids.includes(spectrum.noiseId) ? null : spectrum.noiseId;
    return {
      ...p,
      kept: p.kept.filter((k) => !ids.includes(k.id)),
      live: { ...p.live, spectrum: { ...spectrum, noiseId } },
    };
  });
