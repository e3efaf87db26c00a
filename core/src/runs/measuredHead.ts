import type { Point } from '../geometry/index.js';
import { OCTAVES } from '../room/index.js';
import type { Ear } from './ear.js';

/** Numbers of one direction in a packed head: to the source; of each ear how much later than in the middle; of each ear its amplitude per octave. */
export const BANDS = OCTAVES.length;
export const DELAYS = 3;
export const GAINS = 5;
export const HEAD_ROW = GAINS + 2 * BANDS;

/** So many directions around one that is asked for are taken together, the nearer the more. */
const NEAREST = 3;
const AT_ONE = 1e-3;

/** The ears of a packed head. @param facing azimuth of the nose, radians counter-clockwise from x */
export function earsOfHead(packed: Float32Array, facing: number): [Ear, Ear] {
  const [c, s] = [Math.cos(facing), Math.sin(facing)];
  const count = packed.length / HEAD_ROW;
  let last: { going: Point; rows: number[]; weights: number[] } | null = null;
  const around = (going: Point) => {
    if (last?.going === going) return last;
    // towards the source, as the head has it
    const from = { x: -(c * going.x + s * going.y), y: -(c * going.y - s * going.x), z: -going.z };
    const rows: number[] = [];
    const nears: number[] = [];
    for (let i = 0; i < count; i++) {
      const k = HEAD_ROW * i;
      const near = from.x * packed[k]! + from.y * packed[k + 1]! + from.z * packed[k + 2]!;
      let place = rows.length;
      while (place > 0 && nears[place - 1]! < near) place--;
      if (place >= NEAREST) continue;
      rows.splice(place, 0, k);
      nears.splice(place, 0, near);
      if (rows.length > NEAREST) {
        rows.pop();
        nears.pop();
      }
    }
    const shares = nears.map((near) => 1 / (Math.acos(Math.max(-1, Math.min(1, near))) + AT_ONE));
    const all = shares.reduce((a, b) => a + b, 0);
    return (last = { going, rows, weights: shares.map((w) => w / all) });
  };
  const ear = (which: 0 | 1): Ear => ({
    delayS: (going) => {
      const { rows, weights } = around(going);
      return rows.reduce((sum, k, n) => sum + weights[n]! * packed[k + DELAYS + which]!, 0);
    },
    gains: (going, out) => {
      const { rows, weights } = around(going);
      for (let o = 0; o < BANDS; o++)
        out[o] = Math.sqrt(
          rows.reduce((sum, k, n) => sum + weights[n]! * packed[k + GAINS + which * BANDS + o]! ** 2, 0),
        );
    },
  });
  return [ear(0), ear(1)];
}
