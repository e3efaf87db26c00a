import {
  arraysOf,
  migrateProject,
  PROJECT_VERSION,
  type Project,
  type ProjectArray,
} from '@pebble-hall/core/project';
import Dexie from 'dexie';
import type { ChangeRow, PebbleDatabase } from './database';
import { patched, patchesBetween, type ProjectPatch } from './projectPatch';

/** So many changes can be undone. */
const UNDO_STEPS = 100;

/** A project as it is in memory, and the number of the last change that is in it. */
export interface Held {
  project: Project;
  at: number;
}

/** A change that is stored. */
export interface Changed extends Held {
  label: string;
  /** what turns the project of before into this one; null where a whole one was kept */
  patch: ProjectPatch | null;
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

  /** The project, and the number of the last change that is in it. */
  async openAt(id: string): Promise<{ project: Project; at: number } | undefined> {
    const row = await this.database.projects.get(id);
    return row && { project: migrateProject(row.project), at: row.at };
  }

  /** The project opened last, if there is any. */
  async newest(): Promise<string | undefined> {
    return (await this.database.projects.orderBy('openedAt').last())?.id;
  }

  async list(): Promise<{ id: string; name: string; place: string; openedAt: number }[]> {
    const rows = await this.database.projects.orderBy('openedAt').reverse().toArray();
    return rows.map(({ id, project, openedAt }) => ({
      id,
      name: project.name,
      place: project.place.name,
      openedAt,
    }));
  }

  async touch(id: string): Promise<void> {
    await this.database.projects.update(id, { openedAt: Date.now() });
  }

  /**
   * Applies a change and stores it, together with arrays that it brings along: all or nothing.
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
    arrays: ProjectArray[] = [],
    held: Held | null = null,
  ): Promise<Changed | null> {
    return this.tracked(this.store(id, label, change, arrays, held));
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
    arrays: ProjectArray[],
    held: Held | null,
  ): Promise<Changed | null> {
    const { database } = this;
    return database.transaction('rw', database.projects, database.changes, database.arrays, async () => {
      const row = await database.projects.get(id);
      if (!row) throw new Error('The project is no longer in this browser.');
      const before = held && held.at === row.at ? held.project : migrateProject(row.project);
      const after = change(before);
      if (after === before && arrays.length === 0) return null;
      await database.arrays.bulkPut(arrays.map((array) => ({ ...array, projectId: id })));
      await this.changesOf(id, row.at + 1).delete(); // what was undone is gone once something new is done
      const seq = row.at + 1;
      const patches = patchesBetween(before, after);
      await database.changes.put({ projectId: id, seq, label, version: PROJECT_VERSION, ...patches });
      await database.projects.put({ ...row, project: after, at: seq });
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
        ? patched(migrateProject(row.project), patch)
        : (found as { before: Project; after: Project })[direction === 'back' ? 'before' : 'after'];
      const at = direction === 'back' ? row.at - 1 : row.at + 1;
      await database.projects.put({ ...row, project, at });
      return { project, at, label: found.label, patch };
    });
  }

  private changesOf(id: string, from: number) {
    return this.database.changes.where('[projectId+seq]').between([id, from], [id, Dexie.maxKey], true, true);
  }

  async array(id: string): Promise<ProjectArray | undefined> {
    return this.database.arrays.get(id);
  }

  /** The project with everything that it refers to as one file. */
  async exportFile(id: string): Promise<{ bytes: Uint8Array; project: Project }> {
    const project = await this.open(id);
    if (!project) throw new Error('The project is no longer in this browser.');
    const wanted = [...arraysOf(project)];
    const rows = await this.database.arrays.bulkGet(wanted);
    const arrays = rows.filter((row) => row !== undefined);
    const { writeProjectFile } = await import('./projectFiles');
    return { bytes: writeProjectFile(project, arrays), project };
  }

  /**
   * Takes in a project file beside what is there; its arrays and itself get new ids where theirs are taken.
   * @returns id of the new project
   * @throws FormatError when the file is not right; nothing is stored then
   */
  async importFile(bytes: Uint8Array): Promise<string> {
    const { readProjectFile } = await import('./projectFiles');
    const { project, arrays } = readProjectFile(bytes);
    const { database } = this;
    const taken = (await database.projects.get(project.id)) !== undefined;
    const id = taken ? crypto.randomUUID() : project.id;
    const rename = taken
      ? new Map(arrays.map((a) => [a.id, crypto.randomUUID()]))
      : new Map<string, string>();
    const named = (old: string) => rename.get(old) ?? old;
    const renamed: Project = {
      ...project,
      id,
      rig: {
        ...project.rig,
        roundTrip: project.rig.roundTrip && {
          ...project.rig.roundTrip,
          traceId: named(project.rig.roundTrip.traceId),
        },
        heardTraces: Object.fromEntries(
          Object.entries(project.rig.heardTraces).map(([place, heard]) => [
            place,
            Object.fromEntries(Object.entries(heard).map(([l, trace]) => [l, named(trace)])),
          ]),
        ),
        checks: Object.fromEntries(
          Object.entries(project.rig.checks).map(([key, c]) => [
            key,
            { ...c, traceId: c.traceId && named(c.traceId) },
          ]),
        ),
      },
      sweeps: project.sweeps.map((s) => ({
        ...s,
        traceId: named(s.traceId),
        harmonicsId: s.harmonicsId && named(s.harmonicsId),
        referenceId: s.referenceId && named(s.referenceId),
        floor: s.floor && {
          ...s.floor,
          traceId: named(s.floor.traceId),
          joinedId: named(s.floor.joinedId),
        },
      })),
      loads: project.loads.map((l) => ({
        ...l,
        filters: Object.fromEntries(Object.entries(l.filters).map(([key, filter]) => [key, named(filter)])),
      })),
    };
    await database.transaction('rw', database.projects, database.arrays, async () => {
      await database.arrays.bulkPut(arrays.map((a) => ({ ...a, id: named(a.id), projectId: id })));
      await database.projects.put({ id, project: renamed, at: 0, openedAt: Date.now() });
    });
    return id;
  }
}
