import { OCTAVES } from '../room/index.js';

/** Cells along each side of the square that all directions are laid out on: about 4 degrees of each other. */
const SIDE = 40;
const BANDS = OCTAVES.length;

/** Writes energies per octave of a direction (unit vector). */
export type DirectionEnergies = (x: number, y: number, z: number, out: Float64Array) => void;

/** A function of direction, looked up: what is asked for millions of times. */
export interface DirectionTable {
  values: Float32Array;
  /** index of the first of the octaves of a direction (unit vector) in `values` */
  at: (x: number, y: number, z: number) => number;
}

/** Lays out energies per octave over all directions, by the octahedron (Praun and Hoppe 2003). */
export function directionTable(of: DirectionEnergies): DirectionTable {
  const values = new Float32Array(SIDE * SIDE * BANDS);
  const out = new Float64Array(BANDS);
  for (let i = 0; i < SIDE; i++)
    for (let j = 0; j < SIDE; j++) {
      let [x, y] = [(2 * i + 1) / SIDE - 1, (2 * j + 1) / SIDE - 1];
      const z = 1 - Math.abs(x) - Math.abs(y);
      if (z < 0) [x, y] = [folded(x, y), folded(y, x)];
      const length = Math.sqrt(x * x + y * y + z * z);
      of(x / length, y / length, z / length, out);
      values.set(out, (i * SIDE + j) * BANDS);
    }
  return { values, at: cellOf };
}

/** The lower half of the octahedron lies around the upper one, its corners folded out. */
const folded = (own: number, other: number) => (own < 0 ? -1 : 1) * (1 - Math.abs(other));

function cellOf(x: number, y: number, z: number): number {
  const by = 1 / (Math.abs(x) + Math.abs(y) + Math.abs(z));
  let [u, v] = [x * by, y * by];
  if (z < 0) [u, v] = [folded(u, v), folded(v, u)];
  const i = Math.min(SIDE - 1, Math.floor(((u + 1) * SIDE) / 2));
  const j = Math.min(SIDE - 1, Math.floor(((v + 1) * SIDE) / 2));
  return (i * SIDE + j) * BANDS;
}
