import { freeName, type KeptTrace } from '@pebble-hall/core/project';
import { changeProject } from '../../../services/changeProject';
import { newTrace } from '../../../services/newTrace';
import { movedTraces, orderedAs } from './libraryRows';
import { startingShape } from './startingShape';

/** Changes some traces of the library, undoably. */
export const changeTraces = (
  label: string,
  ids: readonly string[],
  change: (trace: KeptTrace) => KeptTrace,
): Promise<boolean> =>
  changeProject(label, (p) => ({ ...p, kept: p.kept.map((k) => (ids.includes(k.id) ? change(k) : k)) }));

/** Puts traces of the library where another one is. @param before ahead of it, otherwise behind @param seenIds the order that it is seen in */
export const moveTraces = (
  ids: readonly string[],
  toId: string,
  before: boolean,
  seenIds: readonly string[],
): Promise<boolean> =>
  changeProject(ids.length === 1 ? 'trace moved' : `${ids.length} traces moved`, (p) => ({
    ...p,
    kept: movedTraces(orderedAs(p.kept, seenIds), ids, toId, before),
  }));

/** A trace of one shape that is set by hand. @returns its id; null where it could not be stored, which is told */
export async function addShapes(): Promise<string | null> {
  const id = crypto.randomUUID();
  const isStored = await changeProject('trace of shapes', (p) => {
    const name = freeName(
      'Shapes',
      p.kept.map((k) => k.name),
    );
    const formula = { op: 'shapes' as const, of: [], shapes: [startingShape('peaking')] };
    const trace = newTrace({
      id,
      kind: 'transfer function',
      name,
      arrayId: null,
      origin: { by: 'computed', formula },
    });
    return { ...p, kept: [...p.kept, trace] };
  });
  return isStored ? id : null;
}

/** Takes traces out of the library; those that rest on them are broken until that is undone. */
export const removeTraces = (ids: readonly string[]): Promise<boolean> =>
  changeProject(ids.length === 1 ? 'trace removed' : `${ids.length} traces removed`, (p) => {
    const { spectrum } = p.live;
    const { electronics } = p.live;
    const isFlatGone = electronics.flatId !== null && ids.includes(electronics.flatId);
    const noiseId = spectrum.noiseId !== null && ids.includes(spectrum.noiseId) ? null : spectrum.noiseId;
    return {
      ...p,
      kept: p.kept.filter((k) => !ids.includes(k.id)),
      live: {
        ...p.live,
        spectrum: { ...spectrum, noiseId },
        electronics: isFlatGone ? { ...electronics, flatId: null } : electronics,
      },
    };
  });
