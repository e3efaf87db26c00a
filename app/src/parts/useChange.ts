import type { Project, ProjectArray } from '@pebble-hall/core/project';
import { useCallback } from 'react';
import { repository, sentenceOf } from '../store';
import { tellProblem } from './tell';

export type Change = (
  label: string,
  change: (project: Project) => Project,
  arrays?: ProjectArray[],
) => Promise<boolean>;

/** Changes the project, undoably; a failure is told and the project stays as it was. False when it failed. */
export function useChange(projectId: string): Change {
  return useCallback(
    async (label, change, arrays = []) => {
      try {
        await repository().change(projectId, label, change, arrays);
        return true;
      } catch (error) {
        tellProblem(`Not stored: ${label}. ${sentenceOf(error)}`);
        return false;
      }
    },
    [projectId],
  );
}
