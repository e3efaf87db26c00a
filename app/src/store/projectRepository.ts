import {
  arraysOf,
  enclosedIds,
  migrateProject,
  PROJECT_VERSION,
  withArrayIds,
  withFileIds,
  withRunIds,
  type EnclosedFile,
  type Project,
  type ProjectArray,
} from '@pebble-hall/core/project';
import type { RunRays } from '@pebble-hall/core/runs';
import Dexie from 'dexie';
import type { ChangeRow, PebbleDatabase, ProjectRow } from './database';
import { patched, patchesBetween, type ProjectPatch } from './projectPatch';

/** So many changes can be undone. */
const UNDO_STEPS = 100;

/** A project as it is in memory, and the number of the last change that is in it. */
export interface Held {
  project: Project;
  at: number;
}

/** A project as a list shows it. */
export interface ListedProject {
  id: string;
  name: string;
  place: string;
  /** when it was last worked on */
  openedAt: number;
  /** when it was taken off the list; null while it stands there */
  deletedAt: number | null;
}

/** What a change brings along: samples and files that the project refers to afterwards. */
export interface Brought {
  arrays?: ProjectArray[];
  enclosed?: EnclosedFile[];
}

/** All that lies beside a project. */
interface Belongings extends Required<Brought> {
  rays: RunRays[];
}

/** What a project file holds. */
export type ReadProject = Belongings & { project: Project };

/** A change that is stored. */
export interface Changed extends Held {
  label: string;
  /** what turns the project of before into this one; null where a whole one was kept */
  patch: ProjectPatch | null;
}

/** @throws Error where a newer program has stored it; nothing of ours may be written over that */
function projectIn({ project }: ProjectRow): Project {
  if (project.version > PROJECT_VERSION)
    throw new Error(
      `“${project.name}” was last worked on with a newer Pebble Hall. Open it there; it is left here as it is.`,
    );
  return migrateProject(project);
}

/** Every text that stands anywhere in a value, keys among them. */
function namesIn(value: unknown, found = new Set<string>()): Set<string> {
  if (typeof value === 'string') found.add(value);
  else if (Array.isArray(value)) for (const item of value) namesIn(item, found);
  else if (typeof value === 'object' && value !== null)
    for (const [key, item] of Object.entries(value)) {
      found.add(key);
      namesIn(item, found);
    }
  return found;
}

/**
 * Projects in the browser's database. Every change is a function from the stored project to the next one and runs in a
 * transaction, so two tabs never overwrite each other; the change is kept for undo, across reloads.
 */
export class ProjectRepository {
  private readonly underWay = new Set<Promise<unknown>>();

  constructor(readonly database: PebbleDatabase) {}

  /** Done once all changes that are being stored are stored, or have failed; null when there are none. */
  settled(): Promise<unknown> | null {
    return this.underWay.size > 0 ? Promise.allSettled(this.underWay) : null;
  }

  async open(id: string): Promise<Project | undefined> {
    return (await this.openAt(id))?.project;
  }

  /** Whether it is stored, readable or not. */
  isThere = async (id: string): Promise<boolean> =>
    (await this.database.projects.where('id').equals(id).count()) > 0;

  /**
   * The project, and the number of the last change that is in it.
   * @throws Error where a newer program has stored it; it is left as it is
   */
  async openAt(id: string): Promise<{ project: Project; at: number } | undefined> {
    const row = await this.database.projects.get(id);
    return row && { project: projectIn(row), at: row.at };
  }

  /** The project opened last, if there is any. */
  async newest(): Promise<string | undefined> {
    return (await this.list()).find(({ deletedAt }) => deletedAt === null)?.id;
  }

  /** Projects that are there, the one opened last first. */
  async list(): Promise<ListedProject[]> {
    const rows = await this.database.projects.orderBy('openedAt').reverse().toArray();
    return rows.map(({ id, project, openedAt, deletedAt = null }) => ({
      id,
      name: project.name,
      place: project.place?.name ?? '',
      openedAt,
      deletedAt,
    }));
  }

  /** How much room the sounds, drawings and rays of each project take, bytes by its id. */
  async sizes(): Promise<Map<string, number>> {
    const bytes = new Map<string, number>();
    const add = (id: string, more: number) => bytes.set(id, (bytes.get(id) ?? 0) + more);
    // one after the other: all of them at once would take as much memory as they take room
    await this.database.arrays.each(({ projectId, samples }) => add(projectId, samples.byteLength));
    await this.database.enclosed.each((file) => add(file.projectId, file.bytes.byteLength));
    await this.database.rays.each((row) => add(row.projectId, row.data.byteLength));
    return bytes;
  }

  /**
   * A project beside the one given, with all its sounds and without what can be undone in it.
   * @returns its id
   */
  async duplicate(id: string, name: string): Promise<string> {
    const project = await this.open(id);
    if (!project) throw new Error('The project is no longer in this browser.');
    const belongings = await this.belongings(project);
    return this.takeIn({ project: { ...project, name }, ...belongings });
  }

  /** Takes a project off the list; it comes back with `bringBack` until it is removed for good. */
  async remove(id: string): Promise<void> {
    await this.database.projects.update(id, { deletedAt: Date.now() });
  }

  async bringBack(id: string): Promise<void> {
    await this.database.projects.update(id, { deletedAt: null });
  }

  /** Removes for good what was taken off the list before a moment, its sounds and changes with it. */
  async removeForGood(before: number): Promise<void> {
    const { database } = this;
    const gone = (await this.list()).filter(({ deletedAt }) => deletedAt !== null && deletedAt < before);
    for (const { id } of gone)
      await database.transaction('rw', this.tables(), async () => {
        await database.arrays.where('projectId').equals(id).delete();
        await database.enclosed.where('projectId').equals(id).delete();
        await database.rays.where('projectId').equals(id).delete();
        await this.changesOf(id, 0).delete();
        await database.projects.delete(id);
      });
  }

  /** Stores a new project in which nothing was measured. @returns its id */
  add = (project: Project): Promise<string> => this.keep(project, { arrays: [], enclosed: [], rays: [] });

  async touch(id: string): Promise<void> {
    await this.database.projects.update(id, { openedAt: Date.now() });
  }

  /**
   * Applies a change and stores it, together with arrays and files that it brings along: all or nothing.
   * @param change gets the project as stored and returns the next one; the one it gets must not be altered
   * @param held the project as the caller has it in memory: the change is made to that one where nothing newer is stored, so
   *   that what it leaves alone keeps its identity
   * @returns what is stored now; null when the change left everything as it was
   * @throws what the database throws, a full disk among it; then nothing is changed
   */
  change(
    id: string,
    label: string,
    change: (project: Project) => Project,
    brought: Brought = {},
    held: Held | null = null,
  ): Promise<Changed | null> {
    return this.tracked(this.store(id, label, change, brought, held));
  }

  private async tracked<T>(storing: Promise<T>): Promise<T> {
    this.underWay.add(storing);
    try {
      return await storing;
    } finally {
      this.underWay.delete(storing);
    }
  }

  private async store(
    id: string,
    label: string,
    change: (project: Project) => Project,
    { arrays = [], enclosed = [] }: Brought,
    held: Held | null,
  ): Promise<Changed | null> {
    const { database } = this;
    return database.transaction('rw', this.tables(), async () => {
      const row = await database.projects.get(id);
      if (!row) throw new Error('The project is no longer in this browser.');
      const before = held && held.at === row.at ? held.project : projectIn(row);
      const after = change(before);
      if (after === before && arrays.length + enclosed.length === 0) return null;
      await database.arrays.bulkPut(arrays.map((array) => ({ ...array, projectId: id })));
      await database.enclosed.bulkPut(enclosed.map((file) => ({ ...file, projectId: id })));
      await this.changesOf(id, row.at + 1).delete(); // what was undone is gone once something new is done
      const seq = row.at + 1;
      const patches = patchesBetween(before, after);
      await database.changes.put({ projectId: id, seq, label, version: PROJECT_VERSION, ...patches });
      await database.projects.put({ ...row, project: after, at: seq, openedAt: Date.now() });
      if (seq > UNDO_STEPS) {
        await database.changes
          .where('[projectId+seq]')
          .between([id, Dexie.minKey], [id, seq - UNDO_STEPS], true, true)
          .delete();
      }
      return { project: after, at: seq, label, patch: patches.forth };
    });
  }

  /** Labels of what can be undone and redone, null where nothing can. */
  async steps(id: string): Promise<{ undo: string | null; redo: string | null }> {
    const row = await this.database.projects.get(id);
    if (!row) return { undo: null, redo: null };
    const [back, forth] = await Promise.all([
      this.database.changes.get([id, row.at]),
      this.database.changes.get([id, row.at + 1]),
    ]);
    return { undo: back?.label ?? null, redo: forth?.label ?? null };
  }

  /** Takes the last change back; null when there is none. */
  undo = (id: string): Promise<Changed | null> => this.tracked(this.step(id, 'back'));
  redo = (id: string): Promise<Changed | null> => this.tracked(this.step(id, 'forth'));

  private async step(id: string, direction: 'back' | 'forth'): Promise<Changed | null> {
    const { database } = this;
    return database.transaction('rw', database.projects, database.changes, async () => {
      const row = await database.projects.get(id);
      if (!row) return null;
      const found: ChangeRow | undefined = await database.changes.get([
        id,
        direction === 'back' ? row.at : row.at + 1,
      ]);
      // parts of an older shape do not fit into a project that was carried over
      if (!found || ('version' in found && found.version !== PROJECT_VERSION)) return null;
      const patch = 'forth' in found ? found[direction] : null;
      const project = patch
        ? patched(projectIn(row), patch)
        : (found as { before: Project; after: Project })[direction === 'back' ? 'before' : 'after'];
      const at = direction === 'back' ? row.at - 1 : row.at + 1;
      await database.projects.put({ ...row, project, at });
      return { project, at, label: found.label, patch };
    });
  }

  private changesOf(id: string, from: number) {
    return this.database.changes.where('[projectId+seq]').between([id, from], [id, Dexie.maxKey], true, true);
  }

  /** Groups of rays of a project's runs that are there, by run, source and group. */
  async raysThere(projectId: string): Promise<{ runId: string; source: number; group: number }[]> {
    const keys = await this.database.rays.where('projectId').equals(projectId).primaryKeys();
    return keys.map(([runId, source, group]) => ({ runId, source, group }));
  }

  /**
   * Lets go of the sounds, files and rays of a project that neither it has, nor any change of it that could be undone or done again.
   * @returns how many
   */
  async tidy(id: string): Promise<number> {
    const { database } = this;
    return database.transaction('rw', this.tables(), async () => {
      const row = await database.projects.get(id);
      if (!row) return 0;
      // whatever of it names an id, wherever that stands: nothing is let go of that could be asked for again
      const named = namesIn([row, await this.changesOf(id, 0).toArray()]);
      const keys = async (table: 'arrays' | 'enclosed') =>
        (await database[table].where('projectId').equals(id).primaryKeys()).filter((key) => !named.has(key));
      const [arrays, enclosed] = [await keys('arrays'), await keys('enclosed')];
      const rays = (await database.rays.where('projectId').equals(id).primaryKeys()).filter(
        ([runId]) => !named.has(runId),
      );
      await database.arrays.bulkDelete(arrays);
      await database.enclosed.bulkDelete(enclosed);
      await database.rays.bulkDelete(rays);
      return arrays.length + enclosed.length + rays.length;
    });
  }

  async enclosed(id: string): Promise<EnclosedFile | undefined> {
    return this.database.enclosed.get(id);
  }

  async array(id: string): Promise<ProjectArray | undefined> {
    return this.database.arrays.get(id);
  }

  /**
   * The project with everything that it refers to as one file.
   * @param waiting a change that could not be stored, with what it brings: it is in the file
   */
  async exportFile(
    id: string,
    waiting: Brought & { change?: (project: Project) => Project } = {},
  ): Promise<{ bytes: Uint8Array; project: Project }> {
    const stored = await this.open(id);
    if (!stored) throw new Error('The project is no longer in this browser.');
    const project = waiting.change ? waiting.change(stored) : stored;
    const there = await this.belongings(project);
    const arrays = [...there.arrays, ...(waiting.arrays ?? [])];
    const enclosed = [...there.enclosed, ...(waiting.enclosed ?? [])];
    const { rays } = there;
    const { writeProjectFile } = await import('./projectFiles');
    return { bytes: writeProjectFile(project, arrays, enclosed, rays), project };
  }

  /** All that a project refers to, as far as it is there. */
  private async belongings(project: Project): Promise<Belongings> {
    const { database } = this;
    const isThere = <T>(row: T | undefined): row is T => row !== undefined;
    return {
      arrays: (await database.arrays.bulkGet([...arraysOf(project)])).filter(isThere),
      enclosed: (await database.enclosed.bulkGet([...enclosedIds(project)])).filter(isThere),
      rays: (await database.rays.where('projectId').equals(project.id).toArray()).filter(({ runId }) =>
        project.roomRuns.some((run) => run.id === runId),
      ),
    };
  }

  private tables() {
    const { projects, changes, arrays, enclosed, rays } = this.database;
    return [projects, changes, arrays, enclosed, rays];
  }

  /**
   * Takes in what a project file held beside what is there. It and its sounds get ids of their own, whatever the file calls them:
   * nothing that is there can be meant by it.
   * @returns id of the new project
   */
  takeIn = ({ project, ...belongings }: ReadProject): Promise<string> =>
    this.keep({ ...project, id: crypto.randomUUID() }, belongings);

  /**
   * Takes in a project file that ships with the application; it keeps its id, by which it is known as that one, where that is free.
   * @throws FormatError when the file is not right; nothing is stored then
   */
  async takeInShipped(bytes: Uint8Array): Promise<string> {
    const { readProjectFile } = await import('./projectFiles');
    const read = readProjectFile(bytes);
    const isTaken = (await this.database.projects.get(read.project.id)) !== undefined;
    return isTaken ? this.takeIn(read) : this.keep(read.project, read);
  }

  /** Stores a project with its sounds, drawings and rays, all under new ids. */
  private async keep(project: Project, { arrays, enclosed, rays }: Belongings): Promise<string> {
    const { database } = this;
    const { id } = project;
    const names = new Map(
      [...arrays, ...enclosed, ...project.roomRuns].map((a) => [a.id, crypto.randomUUID() as string]),
    );
    const named = (old: string) => names.get(old) ?? old;
    await database.transaction('rw', this.tables(), async () => {
      await database.arrays.bulkPut(arrays.map((a) => ({ ...a, id: named(a.id), projectId: id })));
      await database.enclosed.bulkPut(enclosed.map((f) => ({ ...f, id: named(f.id), projectId: id })));
      await database.rays.bulkPut(rays.map((row) => ({ ...row, runId: named(row.runId), projectId: id })));
      await database.projects.put({
        id,
        project: withRunIds(withFileIds(withArrayIds(project, named), named), named),
        at: 0,
        openedAt: Date.now(),
        deletedAt: null,
      });
    });
    return id;
  }
}
