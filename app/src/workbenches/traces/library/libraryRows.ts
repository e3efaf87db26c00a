import { keptById, lookOf, type KeptTrace, type Project } from '@pebble-hall/core/project';
import { references, SHELF } from '../../../services/references';
import type { SharedTrace } from '../../../store';
import { lookWords } from '../../../words/lookWords';
import { sweepName } from '../../../services/libraryCurves';

/** A row of the library: a kept trace, or a sweep of the walk. */
export interface LibraryRow {
  id: string;
  name: string;
  /** where it stands: its folder, or the round of the walk */
  folder: string;
  tags: string[];
  keptAt: number;
  kind: 'live' | 'together' | 'file' | 'computed' | 'sweep' | 'spectrum' | 'reference' | 'shared';
  /** what the eye changed of it, in words; empty for nothing */
  look: string;
}

/** Sweeps, references and what other projects share have a place of their own. */
export const isKept = ({ kind }: LibraryRow): boolean =>
  kind !== 'sweep' && kind !== 'reference' && kind !== 'shared';

export const LIBRARY_SORTS = ['newest first', 'by name', 'own order'] as const;
export type LibrarySort = (typeof LIBRARY_SORTS)[number];

/**
 * Every trace of a project: what was kept, then the references, then the sweeps of the walk by round.
 * @param shared what stands on the shelf of all projects
 */
export function libraryRows(project: Project, shared: readonly SharedTrace[] = []): LibraryRow[] {
  const kept = keptById(project.kept);
  const rounds = new Map(project.rounds.map((r) => [r.id, r.name]));
  return [
    ...project.kept.map((k): LibraryRow => ({
      id: k.id,
      name: k.name,
      folder: k.folder,
      tags: k.tags,
      keptAt: k.keptAt,
      kind: k.kind === 'spectrum' ? 'spectrum' : k.origin.by,
      look: lookWords(k.view),
    })),
    ...references(project.place).map((r): LibraryRow => ({
      id: r.id,
      name: `${r.name} in the open`,
      folder: SHELF,
      tags: [],
      keptAt: 0,
      kind: 'reference',
      look: '',
    })),
    ...shared
      .filter(({ id }) => !kept.has(id))
      .map(({ id, trace }): LibraryRow => ({
        id,
        name: trace.name,
        folder: SHELF,
        tags: trace.tags,
        keptAt: trace.keptAt,
        kind: 'shared',
        look: '',
      })),
    ...project.sweeps.map((s): LibraryRow => ({
      id: s.id,
      name: sweepName(project, s),
      folder: `Mic walk, ${rounds.get(s.roundId) ?? ''}`,
      tags: [],
      keptAt: s.takenAt,
      kind: 'sweep',
      look: lookWords(lookOf(project, s.id)),
    })),
  ];
}

/** Made once: to begin one anew for each comparison takes longer than the comparison. */
const BY_NAME = new Intl.Collator(undefined, { numeric: true });

const texts = new WeakMap<LibraryRow, string>();
/** What is searched of a row. */
function textOf(r: LibraryRow): string {
  const known = texts.get(r) ?? `${r.name} ${r.folder} ${r.tags.join(' ')} ${r.kind}`.toLowerCase();
  texts.set(r, known);
  return known;
}

/** Rows in which every word of a search stands, in their name, folder or tags; sorted, folder by folder. */
export function foundRows(rows: readonly LibraryRow[], search: string, sort: LibrarySort): LibraryRow[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const found = rows.filter((r) => {
    const all = textOf(r);
    return words.every((w) => all.includes(w));
  });
  // what lies in no folder comes first, the shelf and the walk's rounds last
  const place = (r: LibraryRow) =>
    r.kind === 'sweep' ? 3 : r.folder === SHELF ? 2 : r.folder === '' ? 0 : 1;
  // sorting leaves what is alike in its order
  const within = {
    'by name': (a: LibraryRow, b: LibraryRow) => BY_NAME.compare(a.name, b.name),
    'newest first': (a: LibraryRow, b: LibraryRow) => b.keptAt - a.keptAt,
    'own order': () => 0,
  }[sort];
  return found.sort((a, b) => place(a) - place(b) || BY_NAME.compare(a.folder, b.folder) || within(a, b));
}

/** The kept traces in the order in which some of them are seen; the places of the others stay theirs. */
export function orderedAs(kept: readonly KeptTrace[], seenIds: readonly string[]): KeptTrace[] {
  const byId = new Map(kept.map((k) => [k.id, k]));
  const seen = seenIds.filter((id) => byId.has(id));
  const among = new Set(seen);
  let next = 0;
  return kept.map((k) => (among.has(k.id) ? byId.get(seen[next++]!)! : k));
}

/**
 * The kept traces with some of them put where another one is, in its folder; they keep their order among themselves.
 * @param before whether ahead of it, otherwise behind
 */
export function movedTraces(
  kept: readonly KeptTrace[],
  ids: readonly string[],
  toId: string,
  before: boolean,
): KeptTrace[] {
  const target = kept.find((k) => k.id === toId);
  if (!target || ids.includes(toId)) return [...kept];
  const moving = kept.filter((k) => ids.includes(k.id)).map((k) => ({ ...k, folder: target.folder }));
  const rest = kept.filter((k) => !ids.includes(k.id));
  const at = rest.indexOf(target) + (before ? 0 : 1);
  return [...rest.slice(0, at), ...moving, ...rest.slice(at)];
}
