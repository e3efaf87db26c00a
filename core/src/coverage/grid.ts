import { boundsOf, isWithin, type Corner, type Point } from '../geometry/index.js';
import { needWithin } from '../limits/index.js';

/** How the plane of a grid lies in the place: where its origin is, and where its two coordinates go, as unit vectors. */
export interface GridFrame {
  origin: Point;
  across: Point;
  along: Point;
}

/** Seen from above, coordinates are those of the place. */
export const FROM_ABOVE: GridFrame = {
  origin: { x: 0, y: 0, z: 0 },
  across: { x: 1, y: 0, z: 0 },
  along: { x: 0, y: 1, z: 0 },
};

/** Points at equal steps over a surface, row by row, in coordinates of its plane; `isIn` tells which lie on it. */
export interface LevelGrid {
  frame: GridFrame;
  columns: number;
  rows: number;
  /** of the first point, and from one to the next, metres */
  x0: number;
  y0: number;
  step: number;
  /** x, y, z of each in the place */
  points: Float64Array;
  isIn: Uint8Array;
}

/** A point of a frame in the place. */
export const inFrame = ({ origin, across, along }: GridFrame, { x, y }: Corner): Point => ({
  x: origin.x + x * across.x + y * along.x,
  y: origin.y + x * across.y + y * along.y,
  z: origin.z + x * across.z + y * along.z,
});

/** Steps over a rectangle of a plane, as small as `most` points allow. */
export function gridWithin(
  { least, most: far }: { least: Corner; most: Corner },
  most: number,
  {
    frame,
    pointOf,
    isOn,
  }: { frame: GridFrame; pointOf: (at: Corner) => Point; isOn: (at: Corner) => boolean },
): LevelGrid {
  needWithin('gridWithin', 'number of points', most, 4, 1_000_000);
  const [wide, deep] = [far.x - least.x, far.y - least.y];
  if (!(wide > 1e-6 && deep > 1e-6)) throw new RangeError('gridWithin: the surface has no area');
  const step = Math.sqrt((wide * deep) / most);
  const columns = Math.max(2, Math.min(most, Math.ceil(wide / step)));
  const rows = Math.max(2, Math.min(most, Math.ceil(deep / step)));
  const points = new Float64Array(3 * columns * rows);
  const isIn = new Uint8Array(columns * rows);
  const [x0, y0] = [least.x + (wide - (columns - 1) * step) / 2, least.y + (deep - (rows - 1) * step) / 2];
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const at = { x: x0 + c * step, y: y0 + r * step };
      const n = r * columns + c;
      const { x, y, z } = pointOf(at);
      points.set([x, y, z], 3 * n);
      isIn[n] = isOn(at) ? 1 : 0;
    }
  return { frame, columns, rows, x0, y0, step, points, isIn };
}

/**
 * A grid of points over outlines seen from above.
 * @param outlines what is covered; points in none of them are there, but are told apart
 * @param heightAt metres over the origin, of a point seen from above
 * @param most points at most; the step is as small as that allows
 * @throws RangeError for a surface of no area
 */
export function gridOver(
  outlines: readonly (readonly Corner[])[],
  heightAt: (at: Corner) => number,
  most: number,
): LevelGrid {
  const corners = outlines.flat();
  if (corners.length < 3) throw new RangeError('gridOver: there is no surface');
  return gridWithin(boundsOf(corners), most, {
    frame: FROM_ABOVE,
    pointOf: (at) => ({ ...at, z: heightAt(at) }),
    isOn: (at) => outlines.some((o) => isWithin(o, at)),
  });
}

/** What a listener wants of a map: how loud on the mean, and how alike. */
export interface LevelFigures {
  count: number;
  /** mean of the levels, dB */
  meanDb: number;
  standardDeviationDb: number;
  leastDb: number;
  mostDb: number;
  /** between the quietest tenth and the loudest tenth of the seats, dB */
  middleDb: number;
}

/** @param levels dB, at seats or points @returns null without any */
export function levelFigures(levels: readonly number[]): LevelFigures | null {
  const sorted = levels.filter(Number.isFinite).sort((a, b) => a - b);
  const count = sorted.length;
  if (count === 0) return null;
  const meanDb = sorted.reduce((sum, v) => sum + v, 0) / count;
  const spread = sorted.reduce((sum, v) => sum + (v - meanDb) ** 2, 0) / count;
  const at = (share: number) => {
    const place = share * (count - 1);
    const low = Math.floor(place);
    return sorted[low]! + (place - low) * ((sorted[low + 1] ?? sorted[low]!) - sorted[low]!);
  };
  return {
    count,
    meanDb,
    standardDeviationDb: Math.sqrt(spread),
    leastDb: sorted[0]!,
    mostDb: sorted[count - 1]!,
    middleDb: at(0.9) - at(0.1),
  };
}

/**
 * Levels over a grid, each the mean of the powers within a circle about it: what is left of a map where waves of many sources
 * make a pattern finer than a head.
 * @param levels dB, one for each point
 * @param radiusM metres
 */
export function evenedOut(grid: LevelGrid, levels: Float64Array, radiusM: number): Float64Array {
  needWithin('evenedOut', 'radius in m', radiusM, 0, 1000);
  const { columns, rows, step, isIn } = grid;
  const reach = Math.floor(radiusM / step);
  if (reach === 0) return levels;
  const powers = levels.map((v) => 10 ** (v / 10));
  return levels.map((_, n) => {
    const [c, r] = [n % columns, Math.floor(n / columns)];
    let [sum, count] = [0, 0];
    for (let y = Math.max(0, r - reach); y <= Math.min(rows - 1, r + reach); y++)
      for (let x = Math.max(0, c - reach); x <= Math.min(columns - 1, c + reach); x++) {
        const other = y * columns + x;
        if ((x - c) ** 2 + (y - r) ** 2 > (radiusM / step) ** 2 || isIn[other] !== isIn[n]) continue;
        sum += powers[other]!;
        count++;
      }
    return 10 * Math.log10(sum / count);
  });
}

/**
 * How far the quietest and the loudest of some rows are apart, each by the mean of the levels of its seats.
 * @param seats with the row that each belongs to; null for a seat of none
 * @returns dB; null with fewer than two rows
 */
export function rowsApartDb(seats: readonly { row: string | null; db: number }[]): number | null {
  const rows = new Map<string, number[]>();
  for (const { row, db } of seats)
    if (row !== null && Number.isFinite(db)) rows.set(row, [...(rows.get(row) ?? []), db]);
  if (rows.size < 2) return null;
  const means = [...rows.values()].map((levels) => levels.reduce((a, b) => a + b, 0) / levels.length);
  return Math.max(...means) - Math.min(...means);
}
