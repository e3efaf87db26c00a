import type { Project } from '@pebble-hall/core/project';

/** Name of a file of this project: its words in small letters, joined by hyphens. */
export const fileName = (project: Project): string =>
  `${project.name} ${project.place.name}`
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
