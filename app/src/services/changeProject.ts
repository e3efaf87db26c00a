import type { Project } from '@pebble-hall/core/project';
import { projectOwner, sentenceOf, type Brought } from '../store';
import { askFirst } from './askFirst';
import { notifyProblem } from './notify';
import { storeMeasured } from './unstored';

export type Change = (
  label: string,
  change: (project: Project) => Project,
  brought?: Brought,
) => Promise<boolean>;

/** Changes the open project, undoably; a failure is told and the project stays as it was. False when it failed. */
export const changeProject: Change = (label, change, brought) =>
  askFirst(async () => {
    // what was measured is not thrown away where it cannot be stored
    if (brought?.arrays?.length) return storeMeasured(label, change, brought);
    try {
      await projectOwner().change(label, change, brought);
      return true;
    } catch (error) {
      notifyProblem(`Not stored: ${label}. ${sentenceOf(error)}`);
      return false;
    }
  });
