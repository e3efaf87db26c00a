import { lengthOf, type Point } from '../geometry/index.js';
import { aes69Impulses } from './aes69Responses.js';
import { FormatError } from './formatError.js';
import { openAes69, type Aes69 } from './openAes69.js';

/** What one ear hears from one direction. */
export interface HeadImpulse {
  samples: Float64Array;
  /** index of time zero, which may lie ahead */
  zero: number;
}

/** Responses of the two ears of a head, by directions around it. */
export interface HeadSet {
  title: string;
  notes: string[];
  rate: number;
  /** to the source, of unit length: x ahead, y to the left, z up */
  directions: Point[];
  /** of each direction: the left ear and the right one */
  ears: [HeadImpulse, HeadImpulse][];
}

/** As many as the finest sets of heads have, and more. */
const MOST_DIRECTIONS = 20_000;
/** Fewer say nothing of what lies between them. */
const LEAST_DIRECTIONS = 12;
/** Sets may begin a little late in azimuth; what looks elsewhere altogether is no head that looks along x. */
const AHEAD = 0.99;

/**
 * Reads the head of an AES69 file (SimpleFreeFieldHRIR or alike): two receivers and a source in many directions, as impulse responses.
 * @throws FormatError with what is wrong, and what would be right
 */
export async function readAes69Head(bytes: Uint8Array): Promise<HeadSet> {
  const { file, close } = await openAes69(bytes);
  try {
    return headOf(file);
  } finally {
    close();
  }
}

function headOf(file: Aes69): HeadSet {
  if (file.text('Conventions') !== 'SOFA')
    throw new FormatError(
      'This is an HDF5 file, but none of AES69: it does not say that it follows its conventions.',
    );
  const notes = [`Convention ${file.text('SOFAConventions') || 'not named'}.`];
  if (!file.numbers('Data.IR'))
    throw new FormatError('The file holds no impulse responses (Data.IR), from which a head is read.');
  const all = aes69Impulses(file, notes, 2 * MOST_DIRECTIONS);
  const receivers = Math.max(...all.map(({ r }) => r)) + 1;
  if (receivers !== 2 || all.some(({ e }) => e > 0))
    throw new FormatError(
      `A head has two receivers, its ears, and one emitter; this file has ${receivers === 2 ? 'more emitters' : `${receivers} receivers`}.`,
    );
  const sources = file.points('SourcePosition');
  const count = all.length / 2;
  if (!sources || sources.length !== count || count < LEAST_DIRECTIONS)
    throw new FormatError(
      `A head is heard from ${LEAST_DIRECTIONS} directions at least, each with its SourcePosition; this file has ${sources?.length ?? 0} of ${count}.`,
    );
  const view = file.points('ListenerView')?.[0];
  if (view && !(view.x >= AHEAD * lengthOf(view)))
    throw new FormatError('The head of this file does not look along x. Export it with its view ahead.');
  const [first, second] = file.points('ReceiverPosition') ?? [];
  // the left ear comes first, unless the file says otherwise
  const left = first && second && first.y < second.y ? 1 : 0;
  const rates = new Set(all.map(({ rate }) => rate));
  if (rates.size > 1) throw new FormatError('The responses of this head have different sampling rates.');
  return {
    title: file.text('Title') || file.text('SourceName') || file.text('ListenerShortName'),
    notes,
    rate: all[0]!.rate,
    directions: sources.map((p, i) => {
      const length = lengthOf(p);
      if (!(length > 0) || !Number.isFinite(length))
        throw new FormatError(`Direction ${i + 1} of the head is none: its source is in the head itself.`);
      return { x: p.x / length, y: p.y / length, z: p.z / length };
    }),
    ears: Array.from({ length: count }, (_, m): [HeadImpulse, HeadImpulse] => {
      const ear = (r: number) => {
        const { samples, zero } = all[2 * m + r]!;
        return { samples, zero };
      };
      return [ear(left), ear(1 - left)];
    }),
  };
}
