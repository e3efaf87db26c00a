import type { Point } from '@pebble-hall/core/geometry';
import { extentOf, type Shape } from '@pebble-hall/core/place';

/**
 * From where a place is seen, the front at the left: from above, where the left of those who look to the front lies below; from
 * the seats towards the front; from its left side.
 */
export const VIEWS = ['above', 'front', 'side'] as const;
export type View = (typeof VIEWS)[number];

/** A place laid onto a drawing, whose units are those in which symbols and letters are drawn. */
export interface Projection {
  view: View;
  /** axis of the place that goes to the right, and the one that goes up */
  axes: ['x' | 'y', 'y' | 'z'];
  width: number;
  height: number;
  /** units per metre */
  scale: number;
  at: (p: Point) => [number, number];
  /** the point of the place under one of the drawing; what the view does not show stays as it was */
  under: (u: number, v: number, keep: Point) => Point;
}

const AXES = { above: ['x', 'y'], front: ['y', 'z'], side: ['x', 'z'] } as const;
/** How wide and high a drawing is at most. */
const [WIDE, HIGH] = [560, 410];

export function projectionOf(shape: Shape, view: View): Projection {
  const { least, most } = extentOf(shape);
  const [h, v] = AXES[view];
  const [w, high] = [most[h] - least[h], most[v] - least[v]];
  const scale = Math.min(WIDE / w, HIGH / high);
  return {
    view,
    axes: [h, v],
    width: w * scale,
    height: high * scale,
    scale,
    at: (p) => [(p[h] - least[h]) * scale, (most[v] - p[v]) * scale],
    under: (u, down, keep) => ({
      ...keep,
      [h]: least[h] + u / scale,
      [v]: most[v] - down / scale,
    }),
  };
}

/** A round length, at most so long: 1, 2 or 5 with noughts. */
export function roundLength(most: number): number {
  const ten = 10 ** Math.floor(Math.log10(most));
  return [5, 2, 1].map((n) => n * ten).find((length) => length <= most) ?? ten;
}
