import type { Project, Sweep } from '@pebble-hall/core/project';

/** What turns one state of a project into another; small, as only what differs is in it. */
export interface ProjectPatch {
  /** parts that are other ones, sweeps apart */
  set: Partial<Project>;
  /** sweeps from an index on that are taken out, and those that are put there */
  sweeps: { at: number; remove: number; insert: Sweep[] } | null;
}

/** Both ways between two states that share what is alike: parts and sweeps are compared by identity. */
export function patchesBetween(before: Project, after: Project): { back: ProjectPatch; forth: ProjectPatch } {
  const keys = [...new Set([...Object.keys(before), ...Object.keys(after)])] as (keyof Project)[];
  const other = keys.filter((key) => key !== 'sweeps' && before[key] !== after[key]);
  const of = (project: Project) =>
    Object.fromEntries(other.map((key) => [key, project[key]])) as Partial<Project>;
  const [a, b] = [before.sweeps, after.sweeps];
  let at = 0;
  while (at < a.length && at < b.length && a[at] === b[at]) at++;
  let end = 0;
  while (end < a.length - at && end < b.length - at && a[a.length - 1 - end] === b[b.length - 1 - end]) end++;
  const [left, right] = [a.slice(at, a.length - end), b.slice(at, b.length - end)];
  const same = left.length === 0 && right.length === 0;
  return {
    back: { set: of(before), sweeps: same ? null : { at, remove: right.length, insert: left } },
    forth: { set: of(after), sweeps: same ? null : { at, remove: left.length, insert: right } },
  };
}

/** The project after a patch; the one given stays as it is. */
export function patched(project: Project, { set, sweeps }: ProjectPatch): Project {
  const next = { ...project, ...set };
  if (sweeps) {
    const { at, remove, insert } = sweeps;
    next.sweeps = [...project.sweeps.slice(0, at), ...insert, ...project.sweeps.slice(at + remove)];
  }
  return next;
}
