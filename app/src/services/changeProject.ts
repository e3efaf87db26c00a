import type { Project } from '@pebble-hall/core/project';
import { projectOwner, sentenceOf, type Brought } from '../store';
import { notifyProblem } from './notify';
import { storeMeasured } from './unstored';

export type Change = (
  label: string,
  change: (project: Project) => Project,
  brought?: Brought,
) => Promise<boolean>;

/** Changes that are not stored yet: a page that is left now would lose them, so the browser asks first. */
let pending = 0;
const warn = (event: BeforeUnloadEvent) => event.preventDefault();
function isStoring(by: 1 | -1): void {
  const before = pending;
  pending += by;
  if (typeof addEventListener !== 'function') return;
  if (before === 0) addEventListener('beforeunload', warn);
  if (pending === 0) removeEventListener('beforeunload', warn);
}

/** Changes the open project, undoably; a failure is told and the project stays as it was. False when it failed. */
export const changeProject: Change = async (label, change, brought) => {
  isStoring(1);
  try {
    // what was measured is not thrown away where it cannot be stored
    if (brought?.arrays?.length) return await storeMeasured(label, change, brought);
    await projectOwner().change(label, change, brought);
    return true;
  } catch (error) {
    notifyProblem(`Not stored: ${label}. ${sentenceOf(error)}`);
    return false;
  } finally {
    isStoring(-1);
  }
};
