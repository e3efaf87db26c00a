import { bytesOfText, textOfBytes } from './zip.js';
import { FormatError } from './formatError.js';

/** Numbers in rows, as NumPy keeps them. */
export interface NumberArray {
  /** lengths of its dimensions, the slowest first */
  shape: number[];
  values: Float32Array;
}

const MAGIC = [0x93, 0x4e, 0x55, 0x4d, 0x50, 0x59, 1, 0];
const ALIGNED = 64;
const HEADER = /^\{'descr': '<f4', 'fortran_order': False, 'shape': \(([0-9, ]*)\), ?\}\s*$/;
const MOST_DIMENSIONS = 4;

/** An array as a .npy file: version 1.0, 32-bit floats, little-endian, rows last (NumPy enhancement proposal 1). */
export function writeNpy({ shape, values }: NumberArray): Uint8Array {
  const dimensions = shape.length === 1 ? `${shape[0]},` : shape.join(', ');
  const head = `{'descr': '<f4', 'fortran_order': False, 'shape': (${dimensions}), }`;
  const start = MAGIC.length + 2;
  const padded = ALIGNED * Math.ceil((start + head.length + 1) / ALIGNED) - start;
  const text = bytesOfText(`${head.padEnd(padded - 1)}\n`);
  const bytes = new Uint8Array(start + padded + 4 * values.length);
  bytes.set(MAGIC);
  bytes.set([padded & 255, padded >> 8], MAGIC.length);
  bytes.set(text, start);
  bytes.set(new Uint8Array(values.buffer, values.byteOffset, values.byteLength), start + padded);
  return bytes;
}

/**
 * Reads such a file.
 * @throws FormatError for another kind of numbers or order, and for one that holds more or fewer of them than it says
 */
export function readNpy(bytes: Uint8Array): NumberArray {
  const start = MAGIC.length + 2;
  if (bytes.length < start || MAGIC.some((b, i) => bytes[i] !== b))
    throw new FormatError('The file is no NumPy array of version 1.0.');
  const size = bytes[MAGIC.length]! + 256 * bytes[MAGIC.length + 1]!;
  const found = HEADER.exec(textOfBytes(bytes.subarray(start, start + size)));
  if (!found) throw new FormatError('The array is not one of 32-bit floats by rows.');
  const shape = found[1]!
    .split(',')
    .map((t) => t.trim())
    .filter((t) => t !== '')
    .map(Number);
  const count = shape.reduce((a, b) => a * b, 1);
  if (shape.length > MOST_DIMENSIONS || bytes.length !== start + size + 4 * count)
    throw new FormatError('The array does not hold as many numbers as it says.');
  // copied, as floats must begin at a multiple of four
  return { shape, values: new Float32Array(bytes.slice(start + size).buffer) };
}
