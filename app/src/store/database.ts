import type { ExactChannel, Target } from '@pebble-hall/core/correct';
import type { Project, ProjectArray } from '@pebble-hall/core/project';
import type { ProjectPatch } from './projectPatch';
import Dexie, { type EntityTable, type Table } from 'dexie';

export interface ProjectRow {
  id: string;
  project: Project;
  /** sequence number of the last change that is applied */
  at: number;
  openedAt: number;
}

/** One change, both ways. Arrays are never changed, so references suffice. `version` is that of the shape that the patches fit. Older rows hold the whole project before and after. */
export type ChangeRow = { projectId: string; seq: number; label: string } & (
  { version: number; back: ProjectPatch; forth: ProjectPatch } | { before: Project; after: Project }
);

export type ArrayRow = ProjectArray & { projectId: string };

/** A target of one's own, for all projects. */
export interface ShelfRow {
  name: string;
  target: Target;
}

/** A filter that was worked out, under all that it was made from. */
export interface FilterRow {
  key: string;
  filter: ExactChannel;
  at: number;
}

/** Version of the stored shape; Dexie keeps data of newer versions from being opened, and we say so. */
export const DATABASE_VERSION = 3;

export class PebbleDatabase extends Dexie {
  projects!: EntityTable<ProjectRow, 'id'>;
  changes!: Table<ChangeRow, [string, number]>;
  arrays!: EntityTable<ArrayRow, 'id'>;
  shelf!: EntityTable<ShelfRow, 'name'>;
  filters!: EntityTable<FilterRow, 'key'>;

  constructor(name = 'pebble-hall') {
    super(name);
    this.version(1).stores({
      projects: 'id, openedAt',
      changes: '[projectId+seq]',
      arrays: 'id, projectId',
    });
    this.version(2).stores({ shelf: 'name' });
    this.version(DATABASE_VERSION).stores({ filters: 'key, at' });
  }
}
