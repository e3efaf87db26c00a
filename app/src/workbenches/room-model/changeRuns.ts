import type { Project } from '@pebble-hall/core/project';
import type { RoomRun } from '@pebble-hall/core/runs';
import { changeProject } from '../../services/changeProject';
import { runAgain } from './newRun';
import type { Runs } from './useRuns';

/** Changes the runs, undoably. */
const changeRuns = (label: string, change: (runs: RoomRun[]) => RoomRun[]) =>
  changeProject(label, (p: Project) => ({ ...p, roomRuns: change(p.roomRuns) }));

export const changeRun = (label: string, id: string, change: (run: RoomRun) => RoomRun) =>
  changeRuns(label, (runs) => runs.map((r) => (r.id === id ? change(r) : r)));

export const addRun = (run: RoomRun) => changeRuns(`run ${run.name}`, (runs) => [...runs, run]);

/** Runs the shown one again in the room as it is now, and lays the old one beside it. */
export async function runShownAgain(project: Project, { shown, setShown, setBeside }: Runs): Promise<void> {
  if (!shown) return;
  const run = runAgain(project, shown, shown.name);
  if (!(await addRun(run))) return;
  setBeside(shown.id);
  setShown(run.id);
}

export const removeRun = ({ id, name }: RoomRun) =>
  changeRuns(`remove ${name}`, (runs) => runs.filter((r) => r.id !== id));

/** More rays of the same seed: what is there stays. */
export const moreRays = ({ id }: RoomRun, times: number) =>
  changeRun('more rays', id, (r) => ({
    ...r,
    groups: Math.min(MOST_GROUPS, Math.round(r.groups * times)),
    isHeld: false,
  }));
const MOST_GROUPS = 1000;
