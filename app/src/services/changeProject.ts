import type { Project, ProjectArray } from '@pebble-hall/core/project';
import { projectOwner, sentenceOf } from '../store';
import { notifyProblem } from './notify';

export type Change = (
  label: string,
  change: (project: Project) => Project,
  arrays?: ProjectArray[],
) => Promise<boolean>;

/** Changes the open project, undoably; a failure is told and the project stays as it was. False when it failed. */
export const changeProject: Change = async (label, change, arrays = []) => {
  try {
    await projectOwner().change(label, change, arrays);
    return true;
  } catch (error) {
    notifyProblem(`Not stored: ${label}. ${sentenceOf(error)}`);
    return false;
  }
};
