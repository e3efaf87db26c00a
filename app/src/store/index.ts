/** What the browser keeps: projects, their changes, their arrays. */
export {
  currentId,
  demoShelf,
  madeFilters,
  openCurrentProject,
  openDemo,
  openProjectHere,
  processorProfiles,
  projectOwner,
  repository,
  sharedTraces,
  takeIn,
  targetPresets,
  type Shelved,
} from './store';
export { projectNow, useProject } from './useProject';
export type { OpenProject } from './openProject';
export { sentenceOf, storageProblem } from './storageProblem';
export { ProjectRepository, type Brought, type ListedProject } from './projectRepository';
export { PebbleDatabase, type SharedTrace } from './database';
export type { TargetPreset } from './targetPresets';
