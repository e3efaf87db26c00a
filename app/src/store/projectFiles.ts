// Apart from the rest: what checks a project file is large, and wanted only when one is opened or saved.
export { readProjectFile, writeProjectFile } from '@pebble-hall/core/project';
