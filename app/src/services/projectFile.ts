import type { Project } from '@pebble-hall/core/project';
import { openProjectHere, repository, sentenceOf } from '../store';
import { fileName } from '../words/fileName';
import { askFirst } from './askFirst';
import { readInWorker, runLong } from './jobs';
import { notifyProblem } from './notify';
import { saveFile } from './saveFile';
import { waitingIn } from './unstored';

const MOST_BYTES = 2e9;

/** Saves a project with all that belongs to it as a file, and with what waits to be stored in it; what stands in the way is told. */
export async function saveProjectFile(project: Project): Promise<void> {
  try {
    // reading takes no room on a full disk
    const { bytes } = await repository().exportFile(project.id, waitingIn(project.id));
    saveFile(`${fileName(project)}.pebble.zip`, bytes, 'application/zip');
  } catch (error) {
    notifyProblem(`The project could not be saved: ${sentenceOf(error)}`);
  }
}

/** Opens a project file in this tab, beside what is there; it is read in a worker, and can be given up in the header. */
export async function openProjectFile(file: File): Promise<void> {
  try {
    if (file.size > MOST_BYTES) throw new Error('It is larger than 2 GB.');
    await askFirst(async () => {
      const bytes = new Uint8Array(await file.arrayBuffer());
      const read = await runLong(`Opening ${file.name}`, ({ signal }) =>
        readInWorker('files.project', bytes, signal),
      );
      await openProjectHere(await repository().takeIn(read));
    });
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') return;
    notifyProblem(`${file.name} was not opened: ${sentenceOf(error)} The open project is as it was.`);
  }
}
