import type { ChannelOf } from '@pebble-hall/core/coverage';
import type { Project } from '@pebble-hall/core/project';
import { liveQuery } from 'dexie';
import { projectOwner, repository } from '../store';
import { changeProject } from './changeProject';
import { rayLane, runLong, type AskedModel } from './jobs';
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
    remember(state.project);
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
  void repository().tidy(project.id);
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

/** Channels as they were set when a run was made: the variant may be changed before its first rays. By run and loudspeaker. */
const channels = new Map<string, ChannelOf<AskedModel>>();

function remember(project: Project): void {
  for (const { id, sources } of project.roomRuns)
    for (const source of sources) {
      if (source.kind !== 'loudspeaker' || channels.has(`${id} ${source.id}`)) continue;
      const channel = runChannel(project, source.loudspeakerId);
      if (channel && settingKey(channel) === source.setting) channels.set(`${id} ${source.id}`, channel);
    }
}

function groupAsked({ run, source, group }: RunTask) {
  if (!projectId) throw new Error('No project is open.');
  const channel = channels.get(`${run.id} ${run.sources[source]!.id}`) ?? null;
  return { projectId, run, source, group, channel };
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
