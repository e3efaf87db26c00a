import { writeProjectFile, type Project } from '@pebble-hall/core/project';
import { NET_LOFT_SISKIN, siskinCalibrationText } from '@pebble-hall/stand-ins/net-loft';
import { netLoftProject } from './netLoftProject.js';
import { slipHallProject } from './slipHallProject.js';

/** A project of the shelf, as the list of it tells. */
interface Shelved {
  id: string;
  file: string;
  name: string;
  place: string;
}

/** The one that is measured, corrected and verified; it is made by itself, as that takes half a minute. */
export const FINISHED: Shelved = {
  id: 'saltmarsh-boathouse-finished',
  file: 'saltmarsh-boathouse-finished.pebble.zip',
  name: 'Saltmarsh Boathouse, finished',
  place: 'the Net Loft',
};

/** The demo's projects as project files with a list of them, the one to begin with first, and the calibration file that came with the microphone. */
export function demoFiles(): Record<string, Uint8Array> {
  const projects: [string, Project][] = [
    ['saltmarsh-boathouse.pebble.zip', netLoftProject()],
    ['saltmarsh-slip-hall.pebble.zip', slipHallProject()],
  ];
  const [begin, ...others] = projects.map(([file, { id, name, place }]): Shelved => ({
    id,
    file,
    name,
    place: place.name,
  }));
  const shelf = [begin, FINISHED, ...others];
  const text = (value: string) => new TextEncoder().encode(value);
  return {
    ...Object.fromEntries(projects.map(([file, project]) => [file, writeProjectFile(project, [])])),
    'shelf.json': text(JSON.stringify(shelf)),
    'siskin-m1-4417.txt': text(siskinCalibrationText(NET_LOFT_SISKIN)),
  };
}
