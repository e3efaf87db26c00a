import type { Project } from '@pebble-hall/core/project';
import { useStore } from 'zustand';
import type { OpenProject } from './openProject';
import { projectOwner } from './store';

/** The project of this tab, kept up to date with what any tab does to it. */
export const useProject = (): OpenProject => useStore(projectOwner().store);

/** The open project as it is now; for what is done later than it was drawn. @throws Error when none is open */
export function projectNow(): Project {
  const state = projectOwner().store.getState();
  if (state.status !== 'ready') throw new Error('No project is open.');
  return state.project;
}
