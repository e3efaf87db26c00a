import { sphereGain } from '../directivity/index.js';
import { dot, type Point } from '../geometry/index.js';
import { OCTAVES } from '../room/index.js';
import type { Ear } from './ear.js';
import { earsOfHead } from './measuredHead.js';

/** One that hears from everywhere alike, as a measuring microphone does. */
export const OPEN_EAR: Ear = { delayS: () => 0, gains: (_, out) => void out.fill(1) };

/** A head as a rigid sphere, and how far back its ears lie (Duda and Martens 1998). */
const [HEAD_M, EARS_DEG] = [0.0875, 100];
const SPEED = 343;
const PER_OCTAVE = 6;
const STEP_DEG = 2;
const ROWS = 180 / STEP_DEG + 1;

let table: Float64Array | undefined;

/** `[angle][octave]`: amplitude on the sphere against the open, as the mean power within the octave has it. */
function gainTable(): Float64Array {
  if (table) return table;
  const made = new Float64Array(ROWS * OCTAVES.length);
  OCTAVES.forEach((centre, o) => {
    for (let i = 0; i < PER_OCTAVE; i++) {
      const hz = centre * 2 ** ((i + 0.5) / PER_OCTAVE - 0.5);
      const gain = sphereGain((2 * Math.PI * hz * HEAD_M) / SPEED);
      for (let row = 0; row < ROWS; row++) {
        const { re, im } = gain((row * STEP_DEG * Math.PI) / 180);
        made[row * OCTAVES.length + o] = made[row * OCTAVES.length + o]! + (re * re + im * im) / PER_OCTAVE;
      }
    }
  });
  return (table = made.map(Math.sqrt));
}

/** An ear of a head whose nose points along an azimuth, radians. */
function earAt(azimuth: number): Ear {
  const towards = { x: Math.cos(azimuth), y: Math.sin(azimuth), z: 0 };
  const angleOf = (going: Point) => Math.acos(Math.max(-1, Math.min(1, -dot(going, towards))));
  return {
    // straight to it where it is seen, else around the sphere (Woodworth 1938)
    delayS: (going) => {
      const angle = angleOf(going);
      return (HEAD_M / SPEED) * (angle < Math.PI / 2 ? -Math.cos(angle) : angle - Math.PI / 2);
    },
    gains: (going, out) => {
      const at = (angleOf(going) * 180) / Math.PI / STEP_DEG;
      const row = Math.min(ROWS - 2, Math.floor(at));
      const gains = gainTable();
      for (let o = 0; o < OCTAVES.length; o++) {
        const [a, b] = [gains[row * OCTAVES.length + o]!, gains[(row + 1) * OCTAVES.length + o]!];
        out[o] = a + (at - row) * (b - a);
      }
    },
  };
}

/** Where the left and the right ear are against the middle of the head, metres: x ahead, y to the left. */
export const EAR_PLACES: readonly Point[] = [1, -1].map((side) => {
  const off = (side * EARS_DEG * Math.PI) / 180;
  return { x: HEAD_M * Math.cos(off), y: HEAD_M * Math.sin(off), z: 0 };
});

/** What a response is worked out for. */
export const HEARERS = ['two ears', 'one ear', 'ambisonics'] as const;
export type Hearer = (typeof HEARERS)[number];

/** The ears of a hearer who looks along an azimuth, radians counter-clockwise from x. @param head a packed one; a rigid sphere where there is none */
export function earsOfHearer(hearer: Hearer, facing: number, head?: Float32Array): readonly Ear[] {
  switch (hearer) {
    case 'two ears':
      return head ? earsOfHead(head, facing) : earsOf(facing);
    case 'one ear':
      return [OPEN_EAR];
    case 'ambisonics':
      return ambisonicsOf(facing);
  }
}

/** One that hears with a factor for each direction, the same in all octaves. */
const weighted = (factor: (from: Point) => number): Ear => ({
  delayS: () => 0,
  gains: (going, out) => void out.fill(factor({ x: -going.x, y: -going.y, z: -going.z })),
});

/**
 * First-order ambisonics of one who looks along an azimuth, radians counter-clockwise from x: all around, to the left, up and ahead
 * (W, Y, Z, X: ACN order), a wave from the middle of a figure of eight as loud there as all around (SN3D; Daniel 2000).
 */
export function ambisonicsOf(facing: number): Ear[] {
  const [c, s] = [Math.cos(facing), Math.sin(facing)];
  return [
    weighted(() => 1),
    weighted(({ x, y }) => c * y - s * x),
    weighted(({ z }) => z),
    weighted(({ x, y }) => c * x + s * y),
  ];
}

/** The left and the right ear of a head. @param facing azimuth of the nose, radians counter-clockwise from x */
export const earsOf = (facing: number): [Ear, Ear] => {
  const off = (EARS_DEG * Math.PI) / 180;
  return [earAt(facing + off), earAt(facing - off)];
};
