import { distanceBetween, meanPoint, type Corner, type Point } from '../geometry/index.js';
import type { LevelGrid } from './grid.js';
import { crossings, isoLines } from './isoLines.js';

/** Why a place is a good one to bring two groups together at. */
export type PlaceReason =
  /** both are equally loud there, and arrive at once by themselves */
  | 'equally loud and together'
  /** both are equally loud there, and it is as far from two that hang alike */
  | 'equally loud, between two'
  | 'together, between two'
  | 'equally loud'
  | 'together'
  | 'between two';

export interface MeetingPlace {
  reason: PlaceReason;
  at: Point;
  /** to the centre of each group, metres */
  firstM: number;
  secondM: number;
}

export interface MeetingGround {
  /** over the audience, seen from above */
  grid: LevelGrid;
  /** level of the second over the first at each point, in the band that both share, dB; finer patterns evened out */
  apartDb: ArrayLike<number>;
  /** by how much the second is heard later at each point, seconds */
  laterS: ArrayLike<number>;
  /** centres of what each group is made of, metres */
  first: readonly Point[];
  second: readonly Point[];
}

export interface MeetingLines {
  equallyLoud: Corner[][];
  together: Corner[][];
  /** as far from two that make up a group; empty where there are no two */
  between: Corner[][];
}

/** Places that are nearer to each other are one, metres. */
const APART_M = 1;
const MOST_PLACES = 4;
/** So far beside the seats a place still counts as in the audience, metres. */
const AISLE_M = 0.8;

/** The lines over an audience on which two groups meet. */
export function meetingLines({ grid, apartDb, laterS, first, second }: MeetingGround): MeetingLines {
  // two that stand apart: of the first group, else of the second
  const pair = [first, second].find((of) => of.length === 2 && distanceBetween(of[0]!, of[1]!) > APART_M);
  const nearer = pair
    ? Float64Array.from({ length: grid.columns * grid.rows }, (_, n) => {
        const [x, y, z] = grid.points.subarray(3 * n, 3 * n + 3) as unknown as [number, number, number];
        return distanceBetween(pair[0]!, { x, y, z }) - distanceBetween(pair[1]!, { x, y, z });
      })
    : null;
  const isThere = withAisles(grid);
  const heard = (values: ArrayLike<number>) => Float64Array.from(values, (v, n) => (isThere[n] ? v : NaN));
  return {
    equallyLoud: isoLines(grid, heard(apartDb), 0),
    together: isoLines(grid, heard(laterS), 0),
    between: nearer ? isoLines(grid, heard(nearer), 0) : [],
  };
}

/**
 * Places in the audience to bring two groups together at, the best reason first; of each line the point next to the middle of
 * the audience.
 * @returns up to four, at ear height; nothing where no line crosses the audience
 */
export function meetingPlaces(ground: MeetingGround, lines = meetingLines(ground)): MeetingPlace[] {
  const { grid, first, second } = ground;
  const middle = middleOf(grid);
  const nearest = (of: readonly Corner[]): Corner | null =>
    of.reduce<Corner | null>((best, c) => (best && apart(best, middle) <= apart(c, middle) ? best : c), null);
  const { equallyLoud, together, between } = lines;
  const sought: [PlaceReason, readonly Corner[]][] = [
    ['equally loud and together', crossings(equallyLoud, together)],
    ['equally loud, between two', crossings(equallyLoud, between)],
    ['together, between two', crossings(together, between)],
    ['equally loud', equallyLoud.flat()],
    ['together', together.flat()],
    ['between two', between.flat()],
  ];
  const found: MeetingPlace[] = [];
  for (const [reason, of] of sought) {
    const corner = nearest(of);
    if (!corner || found.some((p) => apart(p.at, corner) < APART_M)) continue;
    const at = { ...corner, z: heightAt(grid, corner) };
    found.push({
      reason,
      at,
      firstM: distanceBetween(at, meanPoint(first)),
      secondM: distanceBetween(at, meanPoint(second)),
    });
  }
  return found.slice(0, MOST_PLACES);
}

const apart = (a: Corner, b: Corner): number => Math.hypot(a.x - b.x, a.y - b.y);

/** The point of the grid that is nearest, its index. */
function indexAt({ columns, rows, x0, y0, step }: LevelGrid, { x, y }: Corner): number {
  const c = Math.max(0, Math.min(columns - 1, Math.round((x - x0) / step)));
  const r = Math.max(0, Math.min(rows - 1, Math.round((y - y0) / step)));
  return r * columns + c;
}

const heightAt = (grid: LevelGrid, at: Corner): number => grid.points[3 * indexAt(grid, at) + 2]!;

/** Points of the audience, and of what lies no further beside it than an aisle: a microphone often stands there. */
function withAisles({ columns, rows, step, isIn }: LevelGrid): Uint8Array {
  const reach = Math.ceil(AISLE_M / step);
  const out = new Uint8Array(isIn.length);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      if (isIn[r * columns + c] !== 1) continue;
      for (let y = Math.max(0, r - reach); y <= Math.min(rows - 1, r + reach); y++)
        for (let x = Math.max(0, c - reach); x <= Math.min(columns - 1, c + reach); x++)
          if (Math.hypot(x - c, y - r) * step <= AISLE_M) out[y * columns + x] = 1;
    }
  return out;
}

function middleOf({ points, isIn }: LevelGrid): Corner {
  let [x, y, count] = [0, 0, 0];
  isIn.forEach((v, n) => {
    if (v === 0) return;
    x += points[3 * n]!;
    y += points[3 * n + 1]!;
    count++;
  });
  return { x: x / count, y: y / count };
}
