import { boundsOf, isWithin, type Corner } from '../geometry/index.js';
import { needWithin } from '../limits/index.js';

/** Points at equal steps over a surface seen from above, row by row; `isIn` tells which lie on it. */
export interface LevelGrid {
  columns: number;
  rows: number;
  /** of the first point, and from one to the next, metres */
  x0: number;
  y0: number;
  step: number;
  points: Float64Array;
  isIn: Uint8Array;
}

/**
 * A grid of points over outlines.
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
  needWithin('gridOver', 'number of points', most, 4, 1_000_000);
  const corners = outlines.flat();
  if (corners.length < 3) throw new RangeError('gridOver: there is no surface');
  const { least, most: far } = boundsOf(corners);
  const [wide, deep] = [far.x - least.x, far.y - least.y];
  if (!(wide > 1e-6 && deep > 1e-6)) throw new RangeError('gridOver: the surface has no area');
  const step = Math.max(wide, deep, Math.sqrt(wide * deep)) > 0 ? Math.sqrt((wide * deep) / most) : 1;
  const columns = Math.max(2, Math.min(most, Math.ceil(wide / step)));
  const rows = Math.max(2, Math.min(most, Math.ceil(deep / step)));
  const points = new Float64Array(3 * columns * rows);
  const isIn = new Uint8Array(columns * rows);
  const [x0, y0] = [least.x + (wide - (columns - 1) * step) / 2, least.y + (deep - (rows - 1) * step) / 2];
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const at = { x: x0 + c * step, y: y0 + r * step };
      const n = r * columns + c;
      points.set([at.x, at.y, heightAt(at)], 3 * n);
      isIn[n] = outlines.some((o) => isWithin(o, at)) ? 1 : 0;
    }
  return { columns, rows, x0, y0, step, points, isIn };
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
