import { bytesOfText, packFiles, writeResponseText, writeWav } from '@pebble-hall/core/formats';
import type { MemoryLoad, Project } from '@pebble-hall/core/project';
import { designWorker, traceOf } from '../../parts/designs';
import { fileName } from '../../parts/FrameHeader';
import { saveFile } from '../../parts/saveFile';
import { repository } from '../../store';

const slug = (name: string) => name.toLowerCase().replace(/[^a-z0-9]+/g, '-');

/** The filter of one channel as WAV, float 32. */
export async function saveFilter(project: Project, load: MemoryLoad, id: string): Promise<void> {
  const array = await repository().array(load.filters[id]!);
  if (!array) throw new Error('The filter is no longer in this browser; load the memory again.');
  const name = project.place.loudspeakers.find((l) => l.id === id)?.name ?? id;
  saveFile(
    `memory-${load.letter.toLowerCase()}-${slug(name)}.wav`,
    writeWav([array.samples], array.rate),
    'audio/wav',
  );
}

/** All filters of a load as WAV in one zip. */
export async function saveFilters(project: Project, load: MemoryLoad): Promise<void> {
  const files: Record<string, Uint8Array> = {};
  for (const [id, filterId] of Object.entries(load.filters)) {
    const array = await repository().array(filterId);
    const { name, output } = project.place.loudspeakers.find((l) => l.id === id)!;
    if (array) files[`output-${output}-${slug(name)}.wav`] = writeWav([array.samples], array.rate);
  }
  saveFile(
    `${fileName(project)}-memory-${load.letter.toLowerCase()}-filters.zip`,
    packFiles(files),
    'application/zip',
  );
}

/** Every trace as text: frequency, level, phase on the 1/48-octave grid, the microphone corrected. */
export async function saveTraces(project: Project): Promise<void> {
  const files: Record<string, Uint8Array> = {};
  for (const sweep of project.sweeps) {
    const spot = project.place.spots.find((s) => s.id === sweep.spotId)!;
    const loudspeaker = project.place.loudspeakers.find((l) => l.id === sweep.loudspeakerId)!;
    const trace = await traceOf(sweep, project.calibrations);
    const response = await designWorker().call((api) => api.response(trace));
    const calibration = sweep.calibrationId ? project.calibrations[sweep.calibrationId]?.name : undefined;
    const text = writeResponseText(response, [
      `${project.name}, ${project.place.name}: ${loudspeaker.name} at ${spot.name}, ${sweep.stage}`,
      `Taken ${new Date(sweep.takenAt).toISOString()}, sweep at ${sweep.levelDbfs} dBFS, memory ${sweep.memory.letter}`,
      `Level re the signal sent out (0 dB: as large in the microphone input as in the output), averaged over 1/48 octave`,
      `Phase from the moment the signal left the interface, engineering sign`,
      calibration ? `Microphone corrected in level by ${calibration}` : 'Microphone not corrected',
    ]);
    files[`${slug(sweep.stage)}/${slug(loudspeaker.name)}-${slug(spot.name)}.txt`] = bytesOfText(text);
  }
  saveFile(`${fileName(project)}-traces.zip`, packFiles(files), 'application/zip');
}

/** The whole project as one file. */
export async function saveProject(project: Project): Promise<void> {
  const { bytes } = await repository().exportFile(project.id);
  saveFile(`${fileName(project)}.pebble.zip`, bytes, 'application/zip');
}
