import type { Project } from '@pebble-hall/core/project';
import { liveQuery } from 'dexie';
import { projectOwner, repository } from '../store';
import { changeProject } from './changeProject';
import { rayLane, runLong } from './jobs';
import { RunQueue, type RunTask } from './runQueue';
import { runChannel, settingKey } from './runSources';

/** More lanes than this would only take memory from each other. */
const MOST_LANES = 8;

let queue: RunQueue | undefined;
let projectId: string | null = null;
let letGo: (() => void) | null = null;

/** Runs of the open project: traced in the background from when a project is open, whichever workbench is. */
export function roomRuns(): RunQueue {
  return (queue ??= begin());
}

function begin(): RunQueue {
  const lanes = Array.from(
    { length: Math.max(1, Math.min(MOST_LANES, navigator.hardwareConcurrency || 2)) },
    rayLane,
  );
  const made = new RunQueue({
    lanes: lanes.length,
    now: () => performance.now(),
    stop: (lane) => lanes[lane]!.stop(),
    trace: (lane, task, onProgress) => lanes[lane]!.run('group', groupAsked(task), { onProgress }),
  });
  const hear = () => {
    const state = projectOwner().store.getState();
    if (state.status !== 'ready') return;
    if (state.project.id !== projectId) open(made, state.project);
    made.setRuns(state.project.roomRuns);
  };
  projectOwner().store.subscribe(hear);
  made.states.subscribe(tellLong);
  hear();
  return made;
}

/** One tab of those that have a project open traces; the others wait until it is gone. */
function open(made: RunQueue, project: Project): void {
  letGo?.();
  projectId = project.id;
  made.setWorks(false);
  made.setRuns([]);
  void repository().tidyRays(project);
  const gone = new AbortController();
  const there = liveQuery(() => repository().raysThere(project.id)).subscribe((keys) => made.setThere(keys));
  letGo = () => {
    gone.abort();
    there.unsubscribe();
  };
  void navigator.locks
    .request(`pebble-hall.runs.${project.id}`, { signal: gone.signal }, async () => {
      // what another tab has traced by now counts
      made.setThere(await repository().raysThere(project.id));
      if (gone.signal.aborted) return;
      made.setWorks(true);
      await new Promise<void>((resolve) => gone.signal.addEventListener('abort', () => resolve()));
    })
    .catch(() => undefined);
}

function groupAsked({ run, source, group }: RunTask) {
  const state = projectOwner().store.getState();
  if (state.status !== 'ready') throw new Error('No project is open.');
  const from = run.sources[source]!;
  const channel = from.kind === 'loudspeaker' ? runChannel(state.project, from.loudspeakerId) : null;
  const isSame = channel && from.kind === 'loudspeaker' && settingKey(channel) === from.setting;
  return { projectId: state.project.id, run, source, group, channel: isSame ? channel : null };
}

/** Holds a run where it is, or lets it go on. */
export const holdRun = (runId: string, isHeld: boolean) =>
  changeProject(isHeld ? 'stop the run' : 'go on with the run', (p) => ({
    ...p,
    roomRuns: p.roomRuns.map((r) => (r.id === runId ? { ...r, isHeld } : r)),
  }));

/** Told in the header while they are under way, where they can be stopped, too. */
const told = new Map<string, { tell: (share: number) => void; end: () => void }>();
function tellLong(): void {
  const states = queue?.states.getState() ?? {};
  const state = projectOwner().store.getState();
  const runs = state.status === 'ready' ? state.project.roomRuns : [];
  for (const [id, { end }] of told)
    if (!states[id]?.isUnderWay) {
      told.delete(id);
      end();
    }
  for (const { id, name } of runs) {
    const now = states[id];
    if (!now?.isUnderWay) continue;
    if (!told.has(id))
      void runLong(
        `Tracing ${name}`,
        ({ signal, onProgress }) =>
          new Promise<void>((resolve) => {
            told.set(id, { tell: onProgress, end: resolve });
            signal.addEventListener('abort', () => void holdRun(id, true), { once: true });
          }),
      );
    told.get(id)?.tell(now.share);
  }
}
