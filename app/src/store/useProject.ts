import type { Project } from '@pebble-hall/core/project';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useState } from 'react';
import { sentenceOf } from './storageProblem';
import { currentProjectId, repository, setCurrentProject } from './store';

export type OpenProject =
  | { status: 'loading' }
  | { status: 'blocked'; problem: string }
  | { status: 'ready'; project: Project; undo: string | null; redo: string | null };

/** The project of this tab, kept up to date with what any tab does to it. */
export function useProject(): OpenProject {
  const [id, setId] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    currentProjectId()
      .then((found) => {
        setCurrentProject(found);
        setId(found);
      })
      .catch((error: unknown) => setProblem(sentenceOf(error)));
  }, []);
  const open = useLiveQuery(async () => {
    if (!id) return undefined;
    const project = await repository().open(id);
    return project && { project, ...(await repository().steps(id)) };
  }, [id]);
  if (problem) return { status: 'blocked', problem };
  return open ? { status: 'ready', ...open } : { status: 'loading' };
}
