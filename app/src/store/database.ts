import type { ExactChannel, Target } from '@pebble-hall/core/correct';
import type { EnclosedFile, KeptTrace, Project, ProjectArray } from '@pebble-hall/core/project';
import type { RunRays } from '@pebble-hall/core/runs';
import type { ProjectPatch } from './projectPatch';
import type { ProcessorProfile } from '@pebble-hall/core/processing';
import Dexie, { type EntityTable, type Table } from 'dexie';

export interface ProjectRow {
  id: string;
  project: Project;
  /** sequence number of the last change that is applied */
  at: number;
  openedAt: number;
  /** when it was taken off the list; rows of before there was a list have none */
  deletedAt?: number | null;
}

/** One change, both ways. Arrays are never changed, so references suffice. `version` is that of the shape that the patches fit. Older rows hold the whole project before and after. */
export type ChangeRow = { projectId: string; seq: number; label: string } & (
  { version: number; back: ProjectPatch; forth: ProjectPatch } | { before: Project; after: Project }
);

export type ArrayRow = ProjectArray & { projectId: string };

export type EnclosedRow = EnclosedFile & { projectId: string };

/** What a group of rays of a run brought; kept beside the project, as it is no change of it. */
export type RaysRow = RunRays & { projectId: string };

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

/** A processor by its profile, for all projects. */
export interface ProfileRow {
  model: string;
  profile: ProcessorProfile;
}

/** A trace of one's own that every project may take in, with its samples. */
export interface SharedTrace {
  /** of the trace; a project that took it in has it under the same one */
  id: string;
  trace: KeptTrace;
  array: ProjectArray;
}

/** Dexie counts its versions in tens, for IndexedDB. */
const DEXIE_STEP = 10;
/** Version of the stored shape; a newer one is refused, and we say so. */
export const DATABASE_VERSION = 7;

export class PebbleDatabase extends Dexie {
  projects!: EntityTable<ProjectRow, 'id'>;
  changes!: Table<ChangeRow, [string, number]>;
  arrays!: EntityTable<ArrayRow, 'id'>;
  enclosed!: EntityTable<EnclosedRow, 'id'>;
  shelf!: EntityTable<ShelfRow, 'name'>;
  filters!: EntityTable<FilterRow, 'key'>;
  profiles!: EntityTable<ProfileRow, 'model'>;
  rays!: Table<RaysRow, [string, number, number]>;
  references!: EntityTable<SharedTrace, 'id'>;

  constructor(name = NAME) {
    super(name);
    this.version(1).stores({
      projects: 'id, openedAt',
      changes: '[projectId+seq]',
      arrays: 'id, projectId',
    });
    this.version(2).stores({ shelf: 'name' });
    this.version(3).stores({ filters: 'key, at' });
    this.version(4).stores({ profiles: 'model' });
    this.version(5).stores({ enclosed: 'id, projectId' });
    this.version(6).stores({ rays: '[runId+source+group], projectId' });
    this.version(DATABASE_VERSION).stores({ references: 'id' });
    // a newer program in another tab changes what is stored: this one must not open it again and write into it
    this.on('versionchange', () => {
      this.close({ disableAutoOpen: true });
      return false;
    });
  }
}

const NAME = 'pebble-hall';

/**
 * Refuses a database that a newer program has written: Dexie would open it, and write to it. To be asked ahead of the first
 * use; its bytes are left alone.
 * @throws DOMException VersionError
 */
export async function refuseNewer(name = NAME): Promise<void> {
  const stored = await storedVersion(name);
  if (stored > DATABASE_VERSION)
    throw new DOMException(
      `The stored version is ${stored}, this program knows ${DATABASE_VERSION}.`,
      'VersionError',
    );
}

/** The version of a database as it is stored, without opening it for writing; 0 where there is none. */
function storedVersion(name: string): Promise<number> {
  return new Promise((resolve, reject) => {
    const request = indexedDB.open(name);
    let isThere = true;
    request.onupgradeneeded = () => {
      // there is none: it is not made by asking
      isThere = false;
      request.transaction!.abort();
    };
    request.onsuccess = () => {
      const { version } = request.result;
      request.result.close();
      resolve(version / DEXIE_STEP);
    };
    request.onerror = () => (isThere ? reject(request.error) : resolve(0));
  });
}
