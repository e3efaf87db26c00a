import type { RoomRun } from '@pebble-hall/core/runs';
import { wholeGroups } from '@pebble-hall/core/runs';
import { createStore, type StoreApi } from 'zustand/vanilla';
import { sentenceOf } from '../store';

/** How far a run is. */
export interface RunState {
  /** numbers of the groups that are there of every source */
  groups: number[];
  /** share of all that is wanted */
  share: number;
  isUnderWay: boolean;
  /** null while nothing tells */
  secondsLeft: number | null;
  /** why it does not go on, as a sentence */
  problem: string | null;
}

/** One group from one source. */
export interface RunTask {
  run: RoomRun;
  source: number;
  group: number;
}

export interface RunKey {
  runId: string;
  source: number;
  group: number;
}

/** What does the work. */
export interface RunHands {
  /** how many groups are traced at once */
  lanes: number;
  /** traces a group and keeps it; rejects when the lane is stopped */
  trace(lane: number, task: RunTask, onProgress: (share: number) => void): Promise<unknown>;
  stop(lane: number): void;
  /** milliseconds, of any clock */
  now(): number;
}

interface Active extends RunTask {
  share: number;
}

const keyOf = (runId: string, source: number, group: number) => `${runId} ${source} ${group}`;

/**
 * Traces what runs want and is not there yet: run after run, group after group, several at once. What is there counts, whoever
 * traced it; so after a reload, or once another tab has gone, it goes on from there.
 */
export class RunQueue {
  readonly states: StoreApi<Record<string, RunState>> = createStore(() => ({}));
  private runs: readonly RoomRun[] = [];
  private there = new Map<string, RunKey>();
  private readonly active: (Active | null)[];
  private readonly problems = new Map<string, string>();
  /** of each run: when this tab began with it, and how many groups it has traced since */
  private readonly paces = new Map<string, { from: number; done: number }>();
  private works = false;

  constructor(private readonly hands: RunHands) {
    this.active = Array.from({ length: hands.lanes }, () => null);
  }

  /** Whether this tab does the work; else it only tells of it. */
  setWorks(works: boolean): void {
    this.works = works;
    if (!works) this.stopLanes(() => true);
    this.pump();
  }

  /** Runs as they are wanted now; what is traced for one that is held or gone is stopped. */
  setRuns(runs: readonly RoomRun[]): void {
    this.runs = runs;
    const wanted = new Map(runs.map((r) => [r.id, r]));
    this.stopLanes(({ run, group }) => {
      const now = wanted.get(run.id);
      return !now || now.isHeld || group >= now.groups;
    });
    for (const id of this.problems.keys()) if (wanted.get(id)?.isHeld !== false) this.problems.delete(id);
    this.pump();
  }

  /** What is kept of all runs. */
  setThere(keys: readonly RunKey[]): void {
    this.there = new Map(keys.map((k) => [keyOf(k.runId, k.source, k.group), k]));
    this.pump();
  }

  /** Goes on with a run that failed. */
  tryAgain(runId: string): void {
    this.problems.delete(runId);
    this.pump();
  }

  private stopLanes(which: (task: Active) => boolean): void {
    this.active.forEach((task, lane) => {
      if (!task || !which(task)) return;
      this.active[lane] = null;
      this.hands.stop(lane);
    });
  }

  private next(): RunTask | null {
    for (const run of this.runs) {
      if (run.isHeld || this.problems.has(run.id)) continue;
      for (let group = 0; group < run.groups; group++)
        for (let source = 0; source < run.sources.length; source++) {
          if (this.there.has(keyOf(run.id, source, group))) continue;
          if (this.active.some((a) => a?.run.id === run.id && a.source === source && a.group === group))
            continue;
          return { run, source, group };
        }
    }
    return null;
  }

  private pump(): void {
    if (this.works)
      for (let lane = 0; lane < this.active.length; lane++) {
        if (this.active[lane]) continue;
        const task = this.next();
        if (!task) break;
        this.begin(lane, task);
      }
    this.tell();
  }

  private begin(lane: number, task: RunTask): void {
    const mine: Active = { ...task, share: 0 };
    this.active[lane] = mine;
    const { id } = task.run;
    if (!this.paces.has(id)) this.paces.set(id, { from: this.hands.now(), done: 0 });
    const isMine = () => this.active[lane] === mine;
    this.hands
      .trace(lane, task, (share) => {
        if (!isMine()) return;
        mine.share = share;
        this.tell();
      })
      .then(
        () => {
          if (!isMine()) return;
          this.active[lane] = null;
          this.paces.get(id)!.done++;
          this.there.set(keyOf(id, task.source, task.group), {
            runId: id,
            source: task.source,
            group: task.group,
          });
          this.pump();
        },
        (error: unknown) => {
          if (!isMine()) return;
          this.active[lane] = null;
          this.problems.set(id, sentenceOf(error));
          this.stopLanes((other) => other.run.id === id);
          this.pump();
        },
      );
  }

  private tell(): void {
    const states: Record<string, RunState> = {};
    for (const run of this.runs) {
      const own = [...this.there.values()].filter((k) => k.runId === run.id && k.group < run.groups);
      const under = this.active.filter((a) => a?.run.id === run.id);
      const all = run.groups * run.sources.length;
      const done = own.length + under.reduce((sum, a) => sum + a!.share, 0);
      if (under.length === 0) this.paces.delete(run.id);
      const pace = this.paces.get(run.id);
      const since = pace ? pace.done + under.reduce((sum, a) => sum + a!.share, 0) : 0;
      states[run.id] = {
        groups: wholeGroups(run, own),
        share: all > 0 ? Math.min(1, done / all) : 1,
        isUnderWay: under.length > 0,
        secondsLeft:
          pace && since >= 1 ? ((this.hands.now() - pace.from) / 1000 / since) * (all - done) : null,
        problem: this.problems.get(run.id) ?? null,
      };
    }
    this.states.setState(states, true);
  }
}
