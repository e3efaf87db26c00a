import { needFinite, needWithin } from '../limits/index.js';
import { OCTAVES, type PerOctave } from '../room/index.js';
import type { TracedSource } from './traceRays.js';

/** Degrees between two directions of an emission. */
const STEP_DEG = 5;
/** Rows from straight down to straight up, columns all around from x on, counter-clockwise. */
export const EMISSION_ROWS = 180 / STEP_DEG + 1;
export const EMISSION_COLUMNS = 360 / STEP_DEG;
const BANDS = OCTAVES.length;

/** What a source sends into all directions of the room. */
export interface Emission {
  /** `[row][column][octave]`: energy, 1 on the mean over all directions */
  table: Float64Array;
  /** on that mean, dB: as from a point that sends everywhere alike, at 1 m */
  powerDb: PerOctave;
}

/** Unit vectors of an emission's directions, x y z of each, by rows. */
export function emissionDirections(): Float64Array {
  const out = new Float64Array(3 * EMISSION_ROWS * EMISSION_COLUMNS);
  for (let row = 0, i = 0; row < EMISSION_ROWS; row++)
    for (let column = 0; column < EMISSION_COLUMNS; column++, i += 3) {
      const up = ((row * STEP_DEG - 90) * Math.PI) / 180;
      const around = (column * STEP_DEG * Math.PI) / 180;
      out.set([Math.cos(up) * Math.cos(around), Math.cos(up) * Math.sin(around), Math.sin(up)], i);
    }
  return out;
}

/**
 * An emission from energies in its directions (those at 1 m from a source of 0 dB are 1): its shape, and how much it is.
 * @param energies `[row][column][octave]` @throws RangeError for another size, energies below 0, an octave without any
 */
export function emissionOf(energies: Float64Array): Emission {
  needWithin('emissionOf', 'number of energies', energies.length, SIZE, SIZE);
  needFinite('emissionOf', 'energies', energies);
  const table = energies.slice();
  const powerDb = OCTAVES.map((hz, o) => {
    let [sum, all] = [0, 0];
    for (let row = 0; row < EMISSION_ROWS; row++) {
      const share = shareOfRow(row);
      for (let column = 0; column < EMISSION_COLUMNS; column++) {
        const e = energies[(row * EMISSION_COLUMNS + column) * BANDS + o]!;
        needWithin('emissionOf', `energy at ${hz} Hz`, e, 0, Infinity);
        sum += share * e;
        all += share;
      }
    }
    const mean = sum / all;
    if (!(mean > 0)) throw new RangeError(`emissionOf: nothing goes out at ${hz} Hz`);
    for (let i = o; i < SIZE; i += BANDS) table[i] = table[i]! / mean;
    return 10 * Math.log10(mean);
  });
  return { table, powerDb };
}

const SIZE = EMISSION_ROWS * EMISSION_COLUMNS * BANDS;

/** The part of the sphere that a row stands for. */
function shareOfRow(row: number): number {
  const half = (STEP_DEG * Math.PI) / 360;
  const up = ((row * STEP_DEG - 90) * Math.PI) / 180;
  return Math.sin(Math.min(Math.PI / 2, up + half)) - Math.sin(Math.max(-Math.PI / 2, up - half));
}

/** Energies into any direction, between those of a table. @param table of `Emission` */
export function emissionInto(table: Float64Array | Float32Array): NonNullable<TracedSource['emission']> {
  needWithin('emissionInto', 'size of the table', table.length, SIZE, SIZE);
  return (x, y, z, out) => {
    const up = (Math.asin(Math.max(-1, Math.min(1, z))) * 180) / Math.PI + 90;
    const around = (Math.atan2(y, x) * 180) / Math.PI + 360;
    const row = Math.min(EMISSION_ROWS - 2, Math.floor(up / STEP_DEG));
    const column = Math.floor(around / STEP_DEG);
    const [a, b] = [up / STEP_DEG - row, around / STEP_DEG - column];
    const left = column % EMISSION_COLUMNS;
    const right = (column + 1) % EMISSION_COLUMNS;
    const low = row * EMISSION_COLUMNS;
    const high = low + EMISSION_COLUMNS;
    for (let o = 0; o < BANDS; o++)
      out[o] =
        (1 - a) * ((1 - b) * table[(low + left) * BANDS + o]! + b * table[(low + right) * BANDS + o]!) +
        a * ((1 - b) * table[(high + left) * BANDS + o]! + b * table[(high + right) * BANDS + o]!);
  };
}
