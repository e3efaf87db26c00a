import { isInOrder, type Project } from '@pebble-hall/core/project';
import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Brought, Changed, ProjectRepository } from './projectRepository';
import { meantOnly } from './meantOnly';
import { patched, type ProjectPatch } from './projectPatch';
import { shareStructure } from './shareStructure';
import { sentenceOf } from './storageProblem';

export type OpenProject =
  | { status: 'loading' }
  | { status: 'blocked'; problem: string }
  | { status: 'ready'; project: Project; at: number; undo: string | null; redo: string | null };

/** What one tab tells the others of a change that it has stored. */
interface Told {
  projectId: string;
  /** number of the last change before and after it */
  from: number;
  at: number;
  patch: ProjectPatch | null;
}

/** A line to the other tabs; a BroadcastChannel in the browser. */
export interface TabLine {
  post(told: Told): void;
  /** @returns ends it */
  listen(take: (told: Told) => void): () => void;
}

/**
 * The one owner of the open project: it is in memory once, every change is stored before it shows, and what any tab has
 * stored is applied as a patch, so that whatever did not change keeps its identity.
 */
export class ProjectOwner {
  readonly store: StoreApi<OpenProject> = createStore<OpenProject>(() => ({ status: 'loading' }));
  private id: string | null = null;
  private turn: Promise<unknown> = Promise.resolve();
  private hangUp: (() => void) | null = null;

  constructor(
    private readonly repository: ProjectRepository,
    private readonly line: TabLine,
  ) {}

  /** Opens a project in this tab. */
  async open(id: string): Promise<void> {
    this.id = id;
    this.hangUp ??= this.line.listen((told) => void this.inTurn(() => this.hear(told)));
    await this.inTurn(() => this.reload());
  }

  /** Nothing can be opened; why. */
  block(error: unknown): void {
    this.store.setState({ status: 'blocked', problem: sentenceOf(error) }, true);
  }

  /**
   * Changes the project, undoably, together with arrays and files that come along: all or nothing.
   * @throws what the database throws; the project stays as it was
   */
  async change(label: string, change: (project: Project) => Project, brought: Brought = {}): Promise<void> {
    const state = this.store.getState();
    const seen = state.status === 'ready' ? state.project : null;
    const id = this.id;
    // whatever was stored since it was asked for, in this tab or another, stays
    const kept = (stored: Project): Project => {
      if (!seen || seen === stored || seen.id !== stored.id) return change(stored);
      const meant = change(seen);
      const made = change(stored);
      const next = meantOnly({ seen, meant, stored, made });
      // two ends that cross each other only together: then the later edit stands as it was made
      return isInOrder(made) && !isInOrder(next) ? made : next;
    };
    await this.inTurn(async () => {
      const { id: now, held } = this.ready();
      if (id !== now) throw new Error('Another project was opened meanwhile.');
      this.show(await this.repository.change(now, label, kept, brought, held));
    });
  }

  /** @returns label of what was undone; null when there was nothing */
  undo = (): Promise<string | null> => this.step('undo');
  redo = (): Promise<string | null> => this.step('redo');

  /** Waits for every change that was begun until now. */
  caughtUp = (): Promise<void> => this.inTurn(() => Promise.resolve());

  close(): void {
    this.hangUp?.();
    this.hangUp = null;
  }

  private step(direction: 'undo' | 'redo'): Promise<string | null> {
    return this.inTurn(async () => {
      const { id } = this.ready();
      const changed = await this.repository[direction](id);
      this.show(changed);
      if (changed) this.store.setState(await this.repository.steps(id));
      return changed?.label ?? null;
    });
  }

  private ready() {
    const state = this.store.getState();
    if (!this.id || state.status !== 'ready') throw new Error('No project is open.');
    return { id: this.id, held: { project: state.project, at: state.at } };
  }

  /** One after the other: a change builds on the one before it. */
  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const done = this.turn.then(work, work);
    this.turn = done.catch(() => undefined);
    return done;
  }

  private show(changed: Changed | null): void {
    const { held, id } = this.ready();
    if (!changed) return;
    const { at, label, patch } = changed;
    const project = shareStructure(held.project, changed.project);
    this.store.setState({ status: 'ready', project, at, undo: label, redo: null }, true);
    this.line.post({ projectId: id, from: held.at, at, patch });
  }

  /** What another tab has stored. */
  private async hear({ projectId, from, at, patch }: Told): Promise<void> {
    const state = this.store.getState();
    if (projectId !== this.id || state.status !== 'ready' || state.at === at) return;
    if (state.at !== from || !patch) return this.reload();
    const project = shareStructure(state.project, patched(state.project, patch));
    const steps = await this.repository.steps(projectId);
    this.store.setState({ status: 'ready', project, at, ...steps }, true);
  }

  private async reload(): Promise<void> {
    const { id } = this;
    if (!id) return;
    try {
      const stored = await this.repository.openAt(id);
      if (!stored) throw new Error('The project is no longer in this browser.');
      const state = this.store.getState();
      const before = state.status === 'ready' ? state.project : null;
      const project = shareStructure(before, stored.project);
      const steps = await this.repository.steps(id);
      this.store.setState({ status: 'ready', project, at: stored.at, ...steps }, true);
    } catch (error) {
      this.block(error);
    }
  }
}
