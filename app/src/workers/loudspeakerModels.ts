import type { RadiatingModel } from '@pebble-hall/core/directivity';
import {
  radiatingFrom,
  radiatingGuess,
  readLoudspeakerFile,
  type ReadLoudspeaker,
} from '@pebble-hall/core/loudspeakers';
import type { OwnModel } from '@pebble-hall/core/project';
import QuickLRU from 'quick-lru';
import { storedFile } from './storedArrays';

/** A model as the page asks for it: of the library as it is, one of one's own by its file. */
export type AskedModel = RadiatingModel | OwnModel;

const read = new QuickLRU<string, Promise<ReadLoudspeaker>>({ maxSize: 24 });

/** Reads a model's file once; a failure is not kept. */
function fileOf(fileId: string): Promise<ReadLoudspeaker> {
  const known = read.get(fileId);
  if (known) return known;
  const made = storedFile(fileId, 'A loudspeaker model')
    .then(({ bytes, name }) => readLoudspeakerFile(bytes, name))
    .then((file) => file.read);
  made.catch(() => read.delete(fileId));
  read.set(fileId, made);
  return made;
}

/** What the computation takes. @throws Error when the file of an own model is lost */
export async function radiatingOfAsked(asked: AskedModel): Promise<RadiatingModel> {
  if (!('source' in asked)) return asked;
  const { source } = asked;
  if (source.kind === 'guess') return radiatingGuess(asked, source.guess);
  return radiatingFrom(asked, source.kind, await fileOf(source.fileId));
}
