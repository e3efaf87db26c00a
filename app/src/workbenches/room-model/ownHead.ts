import { isPackedHead } from '@pebble-hall/core/runs';
import type { OwnHead } from '@pebble-hall/core/project';
import { changeProject } from '../../services/changeProject';
import { readInWorker } from '../../services/jobs';
import { repository } from '../../store';

/** Its numbers are kept as sounds are, which have a rate. */
const RATE = 48_000;
/** Where a file is too large to be a head, bytes. */
const MOST_BYTES = 128e6;

/** Takes the head of an AES69 file into the project, undoably. @returns whether it is there @throws Error with what is wrong with the file */
export async function takeHead(file: File): Promise<boolean> {
  if (file.size > MOST_BYTES) throw new Error(`It has more than ${MOST_BYTES / 1e6} MB: that is no head.`);
  const { title, directions, packed } = await readInWorker(
    'files.head',
    new Uint8Array(await file.arrayBuffer()),
  );
  const arrayId = crypto.randomUUID();
  const name = (title || file.name.replace(/\.[^.]+$/, '')).slice(0, 60);
  return changeProject(
    `head ${name}`,
    (p) => ({ ...p, place: { ...p.place, head: { name, arrayId, directions } } }),
    { arrays: [{ id: arrayId, kind: 'trace', rate: RATE, zero: 0, samples: packed }] },
  );
}

/** The numbers of a head. @throws Error where they are missing or are none */
export async function headNumbers({ name, arrayId }: OwnHead): Promise<Float32Array> {
  const array = await repository().array(arrayId);
  if (!array || !isPackedHead(array.samples))
    throw new Error(`The head ${name} is damaged. Take it from its file again, or choose other ears.`);
  return array.samples;
}
