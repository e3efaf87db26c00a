import type { Project } from '@pebble-hall/core/project';
import { sweepName } from '../../../services/libraryCurves';

/** A row of the library: a kept trace, or a sweep of the walk. */
export interface LibraryRow {
  id: string;
  name: string;
  /** where it stands: its folder, or the round of the walk */
  folder: string;
  tags: string[];
  keptAt: number;
  kind: 'live' | 'file' | 'computed' | 'sweep' | 'spectrum';
}

export type LibrarySort = 'newest first' | 'by name';

/** Every trace of a project: what was kept, then the sweeps of the walk by round. */
export function libraryRows(project: Project): LibraryRow[] {
  const rounds = new Map(project.rounds.map((r) => [r.id, r.name]));
  return [
    ...project.kept.map((k): LibraryRow => ({
      id: k.id,
      name: k.name,
      folder: k.folder,
      tags: k.tags,
      keptAt: k.keptAt,
      kind: k.kind === 'spectrum' ? 'spectrum' : k.origin.by,
    })),
    ...project.sweeps.map((s): LibraryRow => ({
      id: s.id,
      name: sweepName(project, s),
      folder: `Mic walk, ${rounds.get(s.roundId) ?? ''}`,
      tags: [],
      keptAt: s.takenAt,
      kind: 'sweep',
    })),
  ];
}

/** Rows in which every word of a search stands, in their name, folder or tags; sorted, folder by folder. */
export function foundRows(rows: readonly LibraryRow[], search: string, sort: LibrarySort): LibraryRow[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const text = (r: LibraryRow) => `${r.name} ${r.folder} ${r.tags.join(' ')} ${r.kind}`.toLowerCase();
  const found = rows.filter((r) => {
    const all = text(r);
    return words.every((w) => all.includes(w));
  });
  // what lies in no folder comes first, the walk's rounds last
  const place = (r: LibraryRow) => (r.kind === 'sweep' ? 2 : r.folder === '' ? 0 : 1);
  return found.sort(
    (a, b) =>
      place(a) - place(b) ||
      a.folder.localeCompare(b.folder) ||
      (sort === 'by name' ? a.name.localeCompare(b.name, undefined, { numeric: true }) : b.keptAt - a.keptAt),
  );
}
