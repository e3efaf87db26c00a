import type { BalloonData } from '../directivity/index.js';
import type { Point } from '../geometry/index.js';
import type { Scattered } from './scattered.js';

/** Directions nearer to each other than this are the same, degrees. */
const SAME_DEG = 0.02;
/** Farther apart than this nothing is known between two rows of directions, or two directions about the vertical, degrees. */
const MOST_GAP_DEG = 45;
/** Between planes through the axis one passes into the other, as far as the opposite one. */
const MOST_PLANE_GAP_DEG = 180;

/** Balloon data where the directions lie on a grid about the axis, or about the vertical; null where they do not. */
export const regularGrid = (all: Scattered): BalloonData | null =>
  gridAbout(all, 'front') ?? gridAbout(all, 'up');

function gridAbout(
  { directions, frequency, re, im }: Scattered,
  pole: BalloonData['pole'],
): BalloonData | null {
  const seen = directions.map((d) => angles(d, pole));
  const rows = distinct(seen.map((s) => s.fromPole));
  const abouts = distinct(seen.filter((s) => !isPole(s.fromPole)).map((s) => s.about));
  if (rows.length < 2 || abouts.length === 0) return null;
  const mostAbout = pole === 'up' ? MOST_GAP_DEG : MOST_PLANE_GAP_DEG;
  const about = [...abouts, abouts[0]! + 360];
  if (abouts.length > 1 || pole === 'up') if (widest(about) > mostAbout + SAME_DEG) return null;
  if (widest(rows) > MOST_GAP_DEG) return null;
  if (rows.length * abouts.length > 2 * directions.length + 2 * abouts.length) return null;
  const placeIn = (list: readonly number[], v: number) => list.findIndex((x) => Math.abs(x - v) < SAME_DEG);
  const from = new Int32Array(rows.length * abouts.length).fill(-1);
  seen.forEach(({ fromPole, about }, i) => {
    const row = placeIn(rows, fromPole);
    // on a pole there is one direction, however it is turned
    if (isPole(fromPole)) from.fill(i, row * abouts.length, (row + 1) * abouts.length);
    else from[row * abouts.length + placeIn(abouts, about)] = i;
  });
  if (from.includes(-1)) return null;
  const picked = (of: Float64Array[]) => of.map((layer) => Float32Array.from(from, (i) => layer[i]!));
  return {
    pole,
    fromPoleDeg: Float64Array.from(rows),
    aboutDeg: Float64Array.from(abouts),
    frequency,
    re: picked(re),
    im: picked(im),
    hasPhase: true,
  };
}

const widest = (list: readonly number[]) => Math.max(0, ...list.slice(1).map((v, i) => v - list[i]!));

const isPole = (fromPole: number) => fromPole < SAME_DEG || fromPole > 180 - SAME_DEG;

function angles({ x, y, z }: Point, pole: BalloonData['pole']): { fromPole: number; about: number } {
  const DEG = 180 / Math.PI;
  const [along, a, b] = pole === 'front' ? [x, y, z] : [z, x, y];
  const fromPole = Math.atan2(Math.hypot(a, b), along) * DEG;
  const about = Math.atan2(b, a) * DEG;
  const positive = about < 0 ? about + 360 : about;
  return { fromPole, about: positive > 360 - SAME_DEG / 2 ? 0 : positive };
}

/** Values apart from each other, ascending; poles as exactly that. */
function distinct(values: readonly number[]): number[] {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted
    .filter((v, i) => i === 0 || v - sorted[i - 1]! > SAME_DEG / 2)
    .map((v) => (v < SAME_DEG ? 0 : Math.abs(v - 180) < SAME_DEG ? 180 : v));
}
