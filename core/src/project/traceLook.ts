import { keptById, plainSweepLook, type SweepLook } from './kept.js';
import type { Project } from './types.js';

type Looks = Pick<Project, 'kept' | 'sweepLooks'>;

/** How a trace of the library is looked at, kept or a sweep of the walk; null for what is seen as it is. */
export const lookOf = ({ kept, sweepLooks }: Looks, id: string): SweepLook | null =>
  keptById(kept).get(id)?.view ?? (Object.hasOwn(sweepLooks, id) ? sweepLooks[id]! : null);

/** Whether nothing of how it looks changes what is told of a trace: its colour and line alone may differ. */
export const isAsItWas = (look: SweepLook): boolean => {
  const plain = plainSweepLook();
  return (
    look.gainDb === plain.gainDb &&
    look.delayS === plain.delayS &&
    look.inverted === plain.inverted &&
    look.shapes.length === 0 &&
    look.window === null &&
    look.calibrationId === null &&
    look.smoothing === null
  );
};

/** The project with a kept trace or a sweep of the walk looked at otherwise. A sweep that is seen as it is keeps nothing. */
export function withLook<P extends Looks>(project: P, id: string, change: Partial<SweepLook>): P {
  if (keptById(project.kept).has(id))
    return {
      ...project,
      kept: project.kept.map((k) => (k.id === id ? { ...k, view: { ...k.view, ...change } } : k)),
    };
  const look = { ...(lookOf(project, id) ?? plainSweepLook()), ...change };
  const { [id]: _, ...others } = project.sweepLooks;
  const isPlain = isAsItWas(look) && look.colour === null && look.line === plainSweepLook().line;
  return { ...project, sweepLooks: isPlain ? others : { ...others, [id]: look } };
}
