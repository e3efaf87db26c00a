import { measuredIds, withoutChosen, type Project } from '@pebble-hall/core/project';
import { changeProject } from '../../services/changeProject';
import { notify } from '../../services/notify';

/** Removes what is chosen, undoably; what was measured stays, and that is told. @returns ids of what stays chosen */
export async function removeChosen(project: Project, ids: ReadonlySet<string>): Promise<Set<string>> {
  const measured = measuredIds(project);
  const kept = new Set([...ids].filter((id) => measured.has(id)));
  if (kept.size > 0)
    notify('What was measured stays: take it out of use in the table, or remove its spot in Mic walk.');
  if (kept.size === ids.size) return kept;
  return (await changeProject('removed', (p) => withoutChosen(p, ids))) ? kept : new Set(ids);
}
