import { writeProjectFile, type Project } from '@pebble-hall/core/project';
import { NET_LOFT_SISKIN, siskinCalibrationText } from '@pebble-hall/stand-ins/net-loft';
import { netLoftProject } from './netLoftProject.js';
import { slipHallProject } from './slipHallProject.js';

/** A project of the shelf, as the list of it tells. */
interface Shelved {
  file: string;
  name: string;
}

/** The demo's projects as project files with a list of them, the one to begin with first, and the calibration file that came with the microphone. */
export function demoFiles(): Record<string, Uint8Array> {
  const projects: [string, Project][] = [
    ['saltmarsh-boathouse.pebble.zip', netLoftProject()],
    ['saltmarsh-slip-hall.pebble.zip', slipHallProject()],
  ];
  const shelf = projects.map(([file, { name }]): Shelved => ({ file, name }));
  const text = (value: string) => new TextEncoder().encode(value);
  return {
    ...Object.fromEntries(projects.map(([file, project]) => [file, writeProjectFile(project, [])])),
    'shelf.json': text(JSON.stringify(shelf)),
    'siskin-m1-4417.txt': text(siskinCalibrationText(NET_LOFT_SISKIN)),
  };
}
