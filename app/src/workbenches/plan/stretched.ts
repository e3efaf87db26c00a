import { boundsOf } from '@pebble-hall/core/geometry';
import type { Shape } from '@pebble-hall/core/place';

/** A shape made longer or wider: all corners keep their share of it. @param to metres along the axis, above 0 */
export function stretched(shape: Shape, axis: 'x' | 'y', to: number): Shape {
  const { least, most } = boundsOf(shape.outline);
  const now = most[axis] - least[axis];
  if (!(now > 0)) return shape;
  const outline = shape.outline.map((c) => ({
    ...c,
    [axis]: Math.round(1000 * (least[axis] + ((c[axis] - least[axis]) * to) / now)) / 1000,
  }));
  return { ...shape, outline };
}
