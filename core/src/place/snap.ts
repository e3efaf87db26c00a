import type { Point } from '../geometry/index.js';

/** A line that something lies on after it was moved: across an axis, at a coordinate. */
export interface Guide {
  axis: keyof Point;
  at: number;
  because: 'in line' | 'opposite';
}

export interface SnapTo {
  /** what else there is, to be in line with */
  others: readonly Point[];
  /** the centre line, y in metres: what lies opposite of something is in line, too */
  centre: number;
  /** positions are multiples of this where nothing else holds them, metres */
  grid: number;
  /** so near a line holds, metres */
  within: number;
  /** the axes in which it is moved */
  axes: readonly (keyof Point)[];
}

/**
 * Where something that is moved comes to rest: in line with something, opposite of something, or on the grid.
 * @returns the point, and the lines that hold it
 */
export function snapped(
  to: Point,
  { others, centre, grid, within, axes }: SnapTo,
): { at: Point; guides: Guide[] } {
  const at = { ...to };
  const guides: Guide[] = [];
  for (const axis of axes) {
    const lines: Guide[] = others.flatMap((o): Guide[] => [
      { axis, at: o[axis], because: 'in line' },
      ...(axis === 'y' ? [{ axis, at: 2 * centre - o.y, because: 'opposite' } as const] : []),
    ]);
    if (axis === 'y') lines.push({ axis, at: centre, because: 'opposite' });
    const nearest = lines
      .filter((l) => Math.abs(l.at - to[axis]) <= within)
      .reduce<Guide | null>(
        (best, l) => (!best || Math.abs(l.at - to[axis]) < Math.abs(best.at - to[axis]) ? l : best),
        null,
      );
    if (nearest) {
      at[axis] = nearest.at;
      guides.push(nearest);
    } else if (grid > 0) at[axis] = Math.round(to[axis] / grid) * grid;
  }
  return { at, guides };
}
