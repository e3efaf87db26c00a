import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate';
import { FormatError } from './formatError.js';

/** Files shrink by zip to this share and no further, but for those that are made to burst. */
const MOST_GROWTH = 40;
const FREE_BYTES = 4e6;

export interface UnpackLimits {
  files: number;
  /** bytes of all files together, unpacked */
  bytes: number;
}

/** UTF-8 bytes of a text, and back. */
export const bytesOfText = (text: string): Uint8Array => strToU8(text);
export const textOfBytes = (bytes: Uint8Array): string => strFromU8(bytes);

/** A zip of files by name; sound data are stored as they are, as they hardly shrink. */
export function packFiles(files: Record<string, Uint8Array>): Uint8Array {
  const entries: Zippable = {};
  for (const [name, bytes] of Object.entries(files))
    entries[name] = [bytes, { level: name.endsWith('.wav') ? 0 : 6 }];
  return zipSync(entries);
}

/**
 * Unpacks a zip within limits; what a zip claims about sizes is checked before anything is unpacked.
 * @throws FormatError when it is none, is cut off, holds too much, or names a file outside itself
 */
export function unpackFiles(zip: Uint8Array, limits: UnpackLimits): Record<string, Uint8Array> {
  if (zip.length < 22 || zip[0] !== 0x50 || zip[1] !== 0x4b) {
    throw new FormatError('This is not a zip file, or its beginning is missing.');
  }
  let count = 0;
  let total = 0;
  const most = Math.min(limits.bytes, MOST_GROWTH * zip.length + FREE_BYTES);
  try {
    return unzipSync(zip, {
      filter: ({ name, originalSize }) => {
        count++;
        total += originalSize;
        if (count > limits.files) throw new FormatError(`The file holds more than ${limits.files} parts.`);
        // one that claims less than it holds is cut there, as no more room is made than it claims
        if (total > most) {
          throw new FormatError(
            `Unpacked, the file would take more than ${Math.round(most / 1e6)} MB; it was not opened.`,
          );
        }
        if (name.startsWith('/') || name.includes('\\') || name.split('/').includes('..')) {
          throw new FormatError(`The file names a part outside itself: "${name.slice(0, 60)}".`);
        }
        return !name.endsWith('/');
      },
    });
  } catch (error) {
    if (error instanceof FormatError) throw error;
    throw new FormatError('The zip file is damaged or cut off.');
  }
}
