import type { Point } from '../geometry/index.js';
import { needAbove, needWithin } from '../limits/index.js';
import { fftSizeFor, realFft } from '../signal/index.js';
import { cellAt, type RoomGrid } from './roomGrid.js';
import { Field, nearestInside, type Weighted } from './waveField.js';

/** Standing waves of a room of any shape with hard walls. */
export interface WaveModes {
  /** lowest first, Hz */
  hz: number[];
  /** of each, over a level plane: -1 to 1 in each cell, x by x, then y; NaN outside the room */
  pressures: Float32Array[];
  /** cells of the plane along x and y, and where the first has its middle */
  counts: readonly [number, number];
  steps: readonly [number, number];
  origin: Point;
}

/** So long a room is listened to, seconds: modes nearer than half a hertz are told as one. */
const HEARD_S = 4;
/** Peaks so far below the largest are none of the room, dB. */
const DEPTH_DB = 40;
const MOST_MODES = 40;
/** Below this share of half a wave through the room there is nothing but rounding. */
const LOWEST = 0.5;
/** A peak stands out by so much on both sides within so many of the spectrum's steps, dB. */
const STANDS_OUT_DB = 3;
const LOBE = 3;
/** Points in a spectrum between two that are told apart. */
const FINE = 8;
const TOLD_EVERY = 64;
const DRIVE = [1, -2, 1];

/**
 * Modes of a room: what still sounds of a pulse in one corner, as peaks of the spectrum in all corners together, and the pressure of each
 * over a level plane. Tells now and then the share that is done.
 * @param speed m/s @param toHz up to where they are looked for @param heightM of the plane
 */
export function* waveModeSteps(
  grid: RoomGrid,
  speed: number,
  toHz: number,
  heightM: number,
): Generator<number, WaveModes> {
  needAbove('waveModes', 'speed of sound in m/s', speed, 0);
  needWithin('waveModes', 'highest frequency in Hz', toHz, 1, 1000);
  const corners = cornersOf(grid);
  const [source] = corners;
  const sounds = (): Sounding => {
    const field = new Field(grid, new Float64Array(grid.share.length), speed);
    const turns = Math.ceil(HEARD_S / field.stepS);
    return { field, turns, window: (t) => blackman((t + 0.5) / turns) };
  };
  const first = sounds();
  const heard = corners.map(() => new Float64Array(first.turns));
  for (let t = 0; t < first.turns; t++) {
    corners.forEach(({ cell }, c) => (heard[c]![t] = first.field.now[cell]! * first.window(t)));
    first.field.advance([source!], DRIVE[t] ?? 0);
    if (t % TOLD_EVERY === 0) yield (0.45 * t) / first.turns;
  }
  const hz = peaksOf(heard, first.field.stepS, LOWEST * lowestHz(grid, speed), toHz);
  const { cells, counts } = planeOf(grid, heightM);
  const second = sounds();
  const sums = hz.map(() => ({ re: new Float64Array(cells.length), im: new Float64Array(cells.length) }));
  for (let t = 0; t < second.turns; t++) {
    const { now, stepS } = second.field;
    const share = second.window(t);
    hz.forEach((f, m) => {
      const turn = 2 * Math.PI * f * t * stepS;
      const [c, s] = [share * Math.cos(turn), -share * Math.sin(turn)];
      const { re, im } = sums[m]!;
      for (let i = 0; i < cells.length; i++) {
        const p = now[cells[i]!]!;
        re[i] = re[i]! + c * p;
        im[i] = im[i]! + s * p;
      }
    });
    second.field.advance([source!], DRIVE[t] ?? 0);
    if (t % TOLD_EVERY === 0) yield 0.45 + (0.55 * t) / second.turns;
  }
  const outside = Array.from(cells, (cell) => grid.inside[cell] !== 1);
  return {
    hz,
    pressures: sums.map(({ re, im }) => standing(re, im, outside)),
    counts,
    steps: [grid.steps[0], grid.steps[1]],
    origin: { x: grid.origin.x, y: grid.origin.y, z: heightM },
  };
}

/** A window whose side lobes lie 58 dB down. @param share of its length, 0 to 1 */
const blackman = (share: number): number =>
  0.42 - 0.5 * Math.cos(2 * Math.PI * share) + 0.08 * Math.cos(4 * Math.PI * share);

interface Sounding {
  field: Field;
  turns: number;
  window: (t: number) => number;
}

/** Cells in the corners of a room: for each corner of the box around it the one that is nearest. */
function cornersOf(grid: RoomGrid): Weighted[] {
  const { counts, steps, origin } = grid;
  const found = new Set<number>();
  for (let c = 0; c < 8; c++) {
    const at = [0, 1, 2].map((d) => ((c >> d) & 1 ? counts[d]! - 2 : 1));
    found.add(
      nearestInside(grid, {
        x: origin.x + at[0]! * steps[0],
        y: origin.y + at[1]! * steps[1],
        z: origin.z + at[2]! * steps[2],
      }),
    );
  }
  return [...found].map((cell) => ({ cell, weight: 1 }));
}

/** Half a wave from corner to corner of the box around a room: no mode of it lies far below. */
const lowestHz = ({ counts, steps }: RoomGrid, speed: number): number =>
  speed / (2 * Math.hypot(...steps.map((h, d) => h * (counts[d]! - 2))));

/** Frequencies at which what is heard in all corners together peaks, each between its neighbours by a parabola over the levels. */
function peaksOf(heard: Float64Array[], stepS: number, fromHz: number, toHz: number): number[] {
  const size = fftSizeFor(FINE * heard[0]!.length);
  const power = new Float64Array(Math.ceil(toHz * size * stepS) + 2);
  for (const samples of heard) {
    const { re, im } = realFft(samples, size);
    // a pulse that was differenced twice is weaker the lower: that is taken back
    for (let k = 1; k < power.length; k++)
      power[k] = power[k]! + (re[k]! ** 2 + im[k]! ** 2) / Math.sin((Math.PI * k) / size) ** 4;
  }
  const level = power.map((p) => 10 * Math.log10(p));
  const least = Math.ceil(fromHz * size * stepS);
  const lobe = Math.ceil((LOBE * size) / heard[0]!.length);
  const top = Math.max(...level.subarray(least));
  const found: number[] = [];
  for (let k = least; k + 1 < power.length && found.length < MOST_MODES; k++) {
    const [a, b, c] = [level[k - 1]!, level[k]!, level[k + 1]!];
    if (!(b > a && b >= c && b > top - DEPTH_DB)) continue;
    // a peak stands out of what is around it
    const [left, right] = [level.subarray(Math.max(1, k - lobe), k), level.subarray(k + 1, k + 1 + lobe)];
    if (b < Math.max(Math.min(...left), Math.min(...right)) + STANDS_OUT_DB) continue;
    found.push((k + (a - c) / (2 * (a - 2 * b + c))) / (size * stepS));
  }
  return found.filter((hz) => hz <= toHz);
}

/** The cells of the layer that a height lies in. */
function planeOf(grid: RoomGrid, heightM: number): { cells: Int32Array; counts: readonly [number, number] } {
  const { counts, origin, steps } = grid;
  const k = Math.min(counts[2] - 2, Math.max(1, Math.round((heightM - origin.z) / steps[2])));
  const cells = new Int32Array(counts[0] * counts[1]);
  for (let i = 0, n = 0; i < counts[0]; i++)
    for (let j = 0; j < counts[1]; j++, n++) cells[n] = (i * counts[1] + j) * counts[2] + k;
  return { cells, counts: [counts[0], counts[1]] };
}

/** What stands still of a field at one frequency, its largest 1. */
function standing(re: Float64Array, im: Float64Array, outside: readonly boolean[]): Float32Array {
  let [cross, differ] = [0, 0];
  re.forEach((a, i) => {
    cross += 2 * a * im[i]!;
    differ += a * a - im[i]! ** 2;
  });
  const turn = 0.5 * Math.atan2(cross, differ);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const out = Float32Array.from(re, (a, i) => (outside[i] ? NaN : c * a + s * im[i]!));
  const most = out.reduce((best, v) => Math.max(best, Math.abs(v) || 0), 0);
  return out.map((v) => v / (most || 1));
}

/** Pressure of a mode at a place of the plane, between its cells; 0 where there is nothing of the room. */
export function waveModePressure(
  { pressures, counts, steps, origin }: WaveModes,
  mode: number,
  at: Point,
): number {
  const [u, v] = [(at.x - origin.x) / steps[0], (at.y - origin.y) / steps[1]];
  const [i, j] = [Math.floor(u), Math.floor(v)];
  let [sum, weights] = [0, 0];
  for (const [x, y] of [
    [i, j],
    [i + 1, j],
    [i, j + 1],
    [i + 1, j + 1],
  ] as const) {
    if (x < 0 || y < 0 || x >= counts[0] || y >= counts[1]) continue;
    const p = pressures[mode]![x * counts[1] + y]!;
    if (Number.isNaN(p)) continue;
    const weight = (1 - Math.abs(u - x)) * (1 - Math.abs(v - y));
    sum += weight * p;
    weights += weight;
  }
  return weights > 0 ? sum / weights : 0;
}

/** Weaker than this a pressure is of neither sign. */
const SIGNED = 0.08;

/** Half waves along x and along y: how often the sign changes along most of a mode. */
export function halfWaves({ pressures, counts }: WaveModes, mode: number): [number, number] {
  const p = pressures[mode]!;
  const along = (rows: number, cells: number, at: (row: number, cell: number) => number) => {
    const energies = new Map<number, number>();
    for (let row = 0; row < rows; row++) {
      let [changes, sign, energy] = [0, 0, 0];
      for (let cell = 0; cell < cells; cell++) {
        const v = at(row, cell);
        if (!(Math.abs(v) > SIGNED)) continue;
        energy += v * v;
        if (sign !== 0 && Math.sign(v) !== sign) changes++;
        sign = Math.sign(v);
      }
      energies.set(changes, (energies.get(changes) ?? 0) + energy);
    }
    return [...energies].reduce((a, b) => (b[1] > a[1] ? b : a))[0];
  };
  const [nx, ny] = counts;
  return [along(ny, nx, (y, x) => p[x * ny + y]!), along(nx, ny, (x, y) => p[x * ny + y]!)];
}

/** Whether a place lies within a room of cells. */
export const isInRoom = (grid: RoomGrid, p: Point): boolean => {
  const cell = cellAt(grid, p);
  return cell !== null && grid.inside[cell] === 1;
};
