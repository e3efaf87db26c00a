import type { Point } from '../geometry/index.js';
import type { Random } from '../signal/index.js';

/** All directions in parts of equal area: bands of equal height, each in as many parts all around. */
const [BANDS, AROUND] = [4, 8];
export const SECTORS = BANDS * AROUND;

/** Stretches of time after the direct sound, each to where the next begins, seconds. */
export const STRETCHES_S = [0, 0.08, 0.2, 0.5] as const;

/** Indices of the octaves of 500 Hz, 1 and 2 kHz. */
export const MIDDLE_OCTAVES = [3, 4, 5] as const;

/** The stretch that a time after the direct sound lies in; what comes a little before it counts to the first. */
export function stretchOf(laterS: number): number {
  let i = STRETCHES_S.length - 1;
  while (i > 0 && laterS < STRETCHES_S[i]!) i--;
  return i;
}

/** The part that a direction lies in. @param x y z of a unit vector */
export function sectorOf(x: number, y: number, z: number): number {
  const band = Math.max(0, Math.min(BANDS - 1, Math.floor(((z + 1) / 2) * BANDS)));
  // eighths, from x on counter-clockwise
  const [ax, ay] = [Math.abs(x), Math.abs(y)];
  const within = ay <= ax ? 0 : 1;
  const quarter = y >= 0 ? (x >= 0 ? 0 : 1) : x < 0 ? 2 : 3;
  const eighth = 2 * quarter + (quarter % 2 === 0 ? within : 1 - within);
  return band * AROUND + eighth;
}

/** Any direction within a part, each as likely. */
export function directionIn(sector: number, random: Random): Point {
  const z = (2 * (Math.floor(sector / AROUND) + random.uniform())) / BANDS - 1;
  const around = (2 * Math.PI * ((sector % AROUND) + random.uniform())) / AROUND;
  const wide = Math.sqrt(Math.max(0, 1 - z * z));
  return { x: wide * Math.cos(around), y: wide * Math.sin(around), z };
}

/**
 * How evenly sound comes from all around: 1 from everywhere alike, 0 from one direction alone (directional diffusion, Thiele 1953:
 * the mean deviation from the mean against that of a single direction).
 * @param sectors energy from each of `SECTORS` parts @returns NaN where nothing comes
 */
export function evennessOf(sectors: ArrayLike<number>): number {
  const n = sectors.length;
  let all = 0;
  for (let i = 0; i < n; i++) all += sectors[i]!;
  const mean = all / n;
  if (!(mean > 0)) return NaN;
  let apart = 0;
  for (let i = 0; i < n; i++) apart += Math.abs(sectors[i]! - mean);
  const ofOne = (2 * (n - 1)) / n;
  return 1 - apart / n / mean / ofOne;
}
