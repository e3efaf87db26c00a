/** What the browser keeps: projects, their changes, their arrays. */
export {
  currentProjectId,
  madeFilters,
  openDemo,
  repository,
  setCurrentProject,
  shelfTargets,
} from './store';
export { useProject, type OpenProject } from './useProject';
export { sentenceOf, storageProblem } from './storageProblem';
export { ProjectRepository } from './projectRepository';
export { PebbleDatabase } from './database';
export type { ShelfTarget } from './shelf';
