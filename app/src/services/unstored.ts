import type { Project } from '@pebble-hall/core/project';
import { createStore } from 'zustand/vanilla';
import { projectNow, projectOwner, repository, sentenceOf, type Brought } from '../store';
import { asksFirst } from './askFirst';
import { askToKeep } from './storageRoom';

/** Something measured that could not be stored: a change with the sounds that it brings. */
export interface Unstored {
  projectId: string;
  label: string;
  change: (project: Project) => Project;
  brought: Brought;
  problem: string;
}

/** What could not be stored stays in this tab until it can: whichever workbench is looked at, and however often it fails. */
export const unstored = createStore<{ waiting: Unstored[] }>(() => ({ waiting: [] }));

/** The browser asks before a tab is left that holds the only copy of something. */
let letGo: (() => void) | null = null;
unstored.subscribe(({ waiting }) => {
  if (waiting.length > 0) letGo ??= asksFirst();
  else {
    letGo?.();
    letGo = null;
  }
});

const keep = (entry: Unstored) => unstored.setState(({ waiting }) => ({ waiting: [...waiting, entry] }));

/**
 * Stores something that was measured; what cannot be stored is kept in this tab, and told over every workbench.
 * @returns whether it is stored
 */
export async function storeMeasured(
  label: string,
  change: (project: Project) => Project,
  brought: Brought,
): Promise<boolean> {
  const projectId = projectNow().id;
  try {
    await projectOwner().change(label, change, brought);
    askToKeep();
    return true;
  } catch (error) {
    keep({ projectId, label, change, brought, problem: sentenceOf(error) });
    return false;
  }
}

/** Tries to store everything that waits, each in the project that it was measured in. */
export async function storeAgain(): Promise<void> {
  const { waiting } = unstored.getState();
  unstored.setState({ waiting: [] });
  for (const entry of waiting) {
    const { projectId, label, change, brought } = entry;
    try {
      if (projectNow().id === projectId) await projectOwner().change(label, change, brought);
      else await repository().change(projectId, label, change, brought);
    } catch (error) {
      keep({ ...entry, problem: sentenceOf(error) });
    }
  }
}

/** What waits to be stored in a project, as one change with all that it brings. */
export function waitingIn(projectId: string): Required<Brought> & { change: (project: Project) => Project } {
  const waiting = unstored.getState().waiting.filter((u) => u.projectId === projectId);
  return {
    change: (p) => waiting.reduce((now, u) => u.change(now), p),
    arrays: waiting.flatMap((u) => u.brought.arrays ?? []),
    enclosed: waiting.flatMap((u) => u.brought.enclosed ?? []),
  };
}
