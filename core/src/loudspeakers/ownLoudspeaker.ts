import { needBalloonData, type RadiatingModel } from '../directivity/index.js';
import { FormatError, textOfBytes } from '../formats/index.js';
import { guessLoudspeaker, type Guess } from './guess.js';
import { readAes69 } from './readAes69.js';
import { readPolarTable } from './polarTable.js';
import { extentWords, type ReadLoudspeaker } from './readLoudspeaker.js';

/** How a loudspeaker of one's own is called, and how loud it gets. */
export type NamedLevels = Pick<RadiatingModel, 'name' | 'sensitivityDb' | 'largestDb'>;

/** HDF5 files begin so; what does not is text. */
const isHdf = (bytes: Uint8Array) => bytes[0] === 0x89 && bytes[1] === 0x48 && bytes[2] === 0x44;

/**
 * Reads a loudspeaker from a file, by what is in it.
 * @throws FormatError with what is wrong, and what would be right
 */
export async function readLoudspeakerFile(
  bytes: Uint8Array,
  name = '',
): Promise<{ kind: 'AES69' | 'table'; read: ReadLoudspeaker }> {
  if (bytes.length === 0) throw new FormatError('The file is empty. Save or copy it again.');
  const isAes69 = isHdf(bytes) || /\.(sofa|h5|hdf5)$/i.test(name);
  const read = isAes69 ? await readAes69(bytes) : readPolarTable(textOfBytes(bytes));
  try {
    needBalloonData(read.data);
  } catch {
    throw new FormatError(
      'The angles or frequencies of the file do not go together: some stand there twice, or out of order.',
    );
  }
  return { kind: isAes69 ? 'AES69' : 'table', read };
}

const FROM = {
  AES69: 'An AES69 file',
  table: 'A table of polar data',
  traces: 'Measured traces at angles',
} as const;

/** A loudspeaker as the map takes it, from what was read. */
export const radiatingFrom = (
  levels: NamedLevels,
  kind: keyof typeof FROM,
  read: ReadLoudspeaker,
): RadiatingModel => ({
  ...levels,
  about: `${FROM[kind]}: ${extentWords(read)}`,
  axis: { kind: 'curve', ...read.axis },
  radiation: { kind: 'data', data: read.data },
});

/** The same from a guess. */
export function radiatingGuess(
  { name, sensitivityDb, largestDb }: NamedLevels,
  guess: Guess,
): RadiatingModel {
  const { about, ways, axis } = guessLoudspeaker(guess);
  return { name, sensitivityDb, largestDb, about, axis, radiation: { kind: 'ways', ways } };
}
