import { freeName, type KeptLook, type LibraryLook } from '@pebble-hall/core/project';
import { changeProject } from '../../../services/changeProject';

/** Keeps how the library is looked at now, with what is shown, under a name. */
export const keepLibraryView = (name: string, look: LibraryLook): Promise<boolean> =>
  changeProject('view of the library kept', (p) => ({
    ...p,
    libraryViews: [
      ...p.libraryViews,
      {
        id: crypto.randomUUID(),
        name: freeName(
          name,
          p.libraryViews.map((v) => v.name),
        ),
        look,
        keptIds: p.kept.filter((k) => k.view.isShown).map((k) => k.id),
      },
    ],
  }));

export const removeLibraryView = (id: string): Promise<boolean> =>
  changeProject('view of the library forgotten', (p) => ({
    ...p,
    libraryViews: p.libraryViews.filter((v) => v.id !== id),
  }));

/** Shows the kept traces of a view, and no others. */
export const recallLibraryView = ({ name, keptIds }: KeptLook): Promise<boolean> =>
  changeProject(`view ${name} recalled`, (p) => ({
    ...p,
    kept: p.kept.map((k) => {
      const isShown = keptIds.includes(k.id);
      return k.view.isShown === isShown ? k : { ...k, view: { ...k.view, isShown } };
    }),
  }));
