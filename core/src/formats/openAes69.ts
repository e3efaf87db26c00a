import { FormatError } from './formatError.js';
import type { Point } from '../geometry/index.js';

/** What is asked of an AES69 file: an HDF5 file as netCDF-4 writes it. */
export interface Aes69 {
  /** an attribute of the file; empty where it is not there */
  text: (name: string) => string;
  numbers: (name: string) => { values: Float64Array; shape: number[] } | null;
  /** positions or vectors in metres, whatever coordinates they are given in */
  points: (name: string) => Point[] | null;
}

const MAGIC = [0x89, 0x48, 0x44, 0x46, 0x0d, 0x0a, 0x1a, 0x0a];
const MOST_BYTES = 128e6;
const MOST_VALUES = 30e6;
/** Measured values hardly shrink when they are packed. */
const MOST_GROWTH = 40;
const FREE_BYTES = 4e6;
let opened = 0;

/** @throws FormatError for what is no HDF5 file, or a damaged one */
export async function openAes69(bytes: Uint8Array): Promise<{ file: Aes69; close: () => void }> {
  if (bytes.length > MOST_BYTES)
    throw new FormatError(
      `The file has ${Math.round(bytes.length / 1e6)} MB; up to ${MOST_BYTES / 1e6} are taken. Export fewer frequencies or directions.`,
    );
  if (!MAGIC.every((v, i) => bytes[i] === v))
    throw new FormatError('This is no AES69 file: those are HDF5 files, and this does not begin as one.');
  const hdf = await import('h5wasm');
  const { FS } = await hdf.ready;
  const path = `/aes69-${++opened}`;
  FS.writeFile(path, bytes);
  let file: InstanceType<typeof hdf.File> | null = null;
  const close = () => {
    if (file && file.file_id > 0n) file.close();
    FS.unlink(path);
  };
  try {
    file = new hdf.File(path, 'r');
    // a file that was cut off is opened without a word, as none
    if (!(file.file_id > 0n)) throw new RangeError('not opened');
  } catch {
    close();
    throw new FormatError(
      'The file is damaged or was cut off: it begins as HDF5, but cannot be read. Copy or export it again.',
    );
  }
  const held = file;
  /** What the package says of a damaged file is of its inside. */
  const asked = <T>(what: string, read: () => T): T => {
    try {
      return read();
    } catch {
      throw new FormatError(
        `${what} cannot be read: the file is damaged, or packed in a way that is not known here.`,
      );
    }
  };
  const numbers: Aes69['numbers'] = (name) => {
    const found = asked(name, () => held.get(name));
    if (!(found instanceof hdf.Dataset)) return null;
    const shape = asked(name, () => found.shape ?? []);
    const count = shape.reduce((a, b) => a * b, 1);
    if (4 * count > MOST_GROWTH * bytes.length + FREE_BYTES)
      throw new FormatError(
        `${name} claims ${count} values, more than a file of ${Math.ceil(bytes.length / 1000)} kB can hold.`,
      );
    if (count > MOST_VALUES)
      throw new FormatError(
        `${name} holds more than ${MOST_VALUES / 1e6} million values. Export fewer frequencies or directions.`,
      );
    const value: unknown = asked(name, () => found.value);
    if (!ArrayBuffer.isView(value)) return null;
    return { values: Float64Array.from(value as Float64Array), shape };
  };
  const attribute = (of: { attrs: Record<string, { value: unknown }> } | null, name: string): string => {
    const value = asked(name, () => of?.attrs[name]?.value);
    return typeof value === 'string' ? value.trim() : '';
  };
  return {
    close,
    file: {
      text: (name) => attribute(held as never, name),
      numbers,
      points: (name) => {
        const found = numbers(name);
        if (!found) return null;
        const { values, shape } = found;
        // three coordinates, and whatever varies before and behind them
        const [many = 0, three = 0, last = 1] = shape;
        if (three !== 3 || many * 3 * last !== values.length)
          throw new FormatError(
            `${name} has the form ${shape.join(' x ')}; three coordinates were expected.`,
          );
        const isSpherical = attribute(asked(name, () => held.get(name)) as never, 'Type') === 'spherical';
        return Array.from({ length: many * last }, (_, i) => {
          const [r, m] = [Math.floor(i / last), i % last];
          const [a, b, c] = [0, 1, 2].map((k) => values[(r * 3 + k) * last + m]!) as [number, number, number];
          if (!isSpherical) return { x: a, y: b, z: c };
          const [azimuth, elevation] = [(a * Math.PI) / 180, (b * Math.PI) / 180];
          return {
            x: c * Math.cos(elevation) * Math.cos(azimuth),
            y: c * Math.cos(elevation) * Math.sin(azimuth),
            z: c * Math.sin(elevation),
          };
        });
      },
    },
  };
}
