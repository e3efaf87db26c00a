import type { Corner } from '../geometry/index.js';
import type { Ceiling, Shape } from './shape.js';

/**
 * A shape with another outline, as somebody drew it, over a level floor: every wall is as the first one was.
 * @param above how high the walls are, and the ceiling on them; null keeps those that it has
 */
export function drawnShape(
  shape: Shape,
  outline: Corner[],
  above: { heightM: number; ceiling: Ceiling } | null,
): Shape {
  const [first] = shape.walls;
  const mm = (m: number) => Math.round(1000 * m) / 1000;
  const { heightM, ceiling } = above ?? shape;
  return {
    ...shape,
    outline,
    heightM: mm(heightM),
    floorRise: 0,
    ceiling: ceiling.kind === 'flat' ? ceiling : { ...ceiling, highM: mm(ceiling.highM) },
    walls: outline.map((_, i) => ({ ...first!, name: `Wall ${i + 1}` })),
  };
}
