import { theProcessor } from '../../../services/theProcessor';
import { bytesOfText, packFiles, writeResponseText, writeWav } from '@pebble-hall/core/formats';
import {
  type MemoryLoad,
  type Project,
  type ProjectArray,
  loudspeakerById,
  loudspeakerName,
} from '@pebble-hall/core/project';
import { traceRef } from '@pebble-hall/core/jobs';
import { draftLoad } from '../../../services/draftLoad';
import { memoryWords } from '../../../words/memoryName';
import { runJob } from '../../../services/jobs';
import { fileName } from '../../../words/fileName';
import { saveFile } from '../../../services/saveFile';
import { repository } from '../../../store';
import { predictionsOf } from './predictions';
import { LOW_CHANNEL_NAME, lowInputs } from './lowChannel';
import { bundleFiles, slug, type BundleChannel, type BundleRequest } from './bundle';

/** The filter of one channel as WAV, float 32. */
export async function saveFilter(project: Project, load: MemoryLoad, id: string): Promise<void> {
  const array = await repository().array(load.filters[id]!);
  if (!array) throw new Error('The filter is no longer in this browser; load the memory again.');
  const name = loudspeakerName(project.place, id);
  saveFile(
    `memory-${load.letter.toLowerCase()}-${slug(name)}.wav`,
    writeWav([array.samples], array.rate),
    'audio/wav',
  );
}

/** What is exported: a load, or the variant that is edited as it is designed now. */
export type ToExport = MemoryLoad | 'as designed';

/** A load with filters that are not stored. */
export interface Exported {
  load: MemoryLoad;
  held: ProjectArray[];
}

/** What is exported, made where nothing was loaded. */
export async function exported(project: Project, what: ToExport): Promise<Exported> {
  if (what !== 'as designed') return { load: what, held: [] };
  const { load, arrays } = await draftLoad(project);
  return { load, held: arrays };
}

/** Everything of a load in one zip: filters at the rates asked for, sections, delays and gains, predictions, and a README. */
export async function saveBundle(
  project: Project,
  what: ToExport,
  options: Pick<BundleRequest, 'rates' | 'layout' | 'bits'>,
): Promise<void> {
  const { load, held } = await exported(project, what);
  const channels: BundleChannel[] = [];
  for (const id of Object.keys(load.spans)) {
    const { name, output } = loudspeakerById(project.place, id)!;
    const filterId = load.filters[id];
    const array = filterId && (held.find((a) => a.id === filterId) ?? (await repository().array(filterId)));
    if (filterId && !array)
      throw new Error(`The filter of ${name} is no longer in this browser; load the memory again.`);
    channels.push({
      name,
      output,
      fir: array ? array.samples : null,
      settings: load.outputs?.[output - 1] ?? null,
    });
  }
  for (const input of lowInputs(load, project))
    channels.push({ name: LOW_CHANNEL_NAME, output: input, fir: null, settings: load.outputs![input - 1]! });
  const files = bundleFiles({
    ...options,
    project: `${project.name}, ${project.place.name}`,
    where: memoryWords(load),
    variant: load.variantName,
    channels: channels.sort((a, b) => a.output - b.output),
    predictions: await predictionsOf(project, load, held),
    rate: theProcessor().profile.rate,
  });
  const name = load.letter ? `memory-${load.letter.toLowerCase()}` : slug(load.variantName);
  saveFile(`${fileName(project)}-${name}.zip`, packFiles(files), 'application/zip');
}

/** Every trace as text: frequency, level, phase on the 1/48-octave grid, the microphone corrected. */
export async function saveTraces(project: Project): Promise<void> {
  const files: Record<string, Uint8Array> = {};
  for (const sweep of project.sweeps) {
    const spot = project.place.spots.find((s) => s.id === sweep.spotId)!;
    const loudspeaker = loudspeakerById(project.place, sweep.loudspeakerId)!;
    const response = await runJob('design.response', traceRef(sweep, project.calibrations));
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
