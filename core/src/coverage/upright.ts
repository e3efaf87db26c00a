import { isWithin, type Corner } from '../geometry/index.js';
import { needNumber } from '../limits/index.js';
import { extentOf, floorAt, roofAt, type Shape } from '../place/index.js';
import { gridWithin, inFrame, type GridFrame, type LevelGrid } from './grid.js';

/** Outdoors an upright plane reaches so high over the ground, metres, unless walls are higher. */
const OPEN_AIR_M = 6;

/** An upright plane through a point; its first coordinate goes along the bearing from there, its second one up from the origin. */
export function uprightFrame(through: Corner, bearingDeg: number): GridFrame {
  const turn = (bearingDeg * Math.PI) / 180;
  return {
    origin: { x: through.x, y: through.y, z: 0 },
    across: { x: Math.cos(turn), y: Math.sin(turn), z: 0 },
    along: { x: 0, y: 0, z: 1 },
  };
}

/**
 * A grid of points over an upright plane, as far as it lies in a place: between its walls, over its floor, under its ceiling.
 * @param bearingDeg in which it goes, counter-clockwise from x
 * @throws RangeError where the plane does not meet the place
 */
export function uprightGrid(shape: Shape, through: Corner, bearingDeg: number, most: number): LevelGrid {
  for (const value of [through.x, through.y, bearingDeg])
    needNumber('uprightGrid', 'place or bearing of the plane', value);
  const frame = uprightFrame(through, bearingDeg);
  const cuts = cutsOf(shape.outline, frame);
  if (cuts.length < 2) throw new RangeError('uprightGrid: the plane does not meet the place');
  const { least, most: far } = extentOf(shape);
  const top = shape.isEnclosed ? far.z : Math.max(far.z, least.z + OPEN_AIR_M);
  return gridWithin(
    { least: { x: Math.min(...cuts), y: least.z }, most: { x: Math.max(...cuts), y: top } },
    most,
    {
      frame,
      pointOf: (at) => inFrame(frame, at),
      isOn: (at) => {
        const point = inFrame(frame, at);
        return (
          isWithin(shape.outline, point) &&
          point.z >= floorAt(shape, point) &&
          (!shape.isEnclosed || point.z <= roofAt(shape, point))
        );
      },
    },
  );
}

/** Where a plane meets the sides of an outline, along it. */
function cutsOf(outline: readonly Corner[], { origin, across }: GridFrame): number[] {
  // how far beside the plane, to its left
  const beside = (c: Corner) => (c.y - origin.y) * across.x - (c.x - origin.x) * across.y;
  const along = (c: Corner) => (c.x - origin.x) * across.x + (c.y - origin.y) * across.y;
  return outline.flatMap((a, i) => {
    const b = outline[(i + 1) % outline.length]!;
    const [p, q] = [beside(a), beside(b)];
    if (p === q) return p === 0 ? [along(a), along(b)] : [];
    const t = p / (p - q);
    return t >= 0 && t <= 1 ? [along(a) + t * (along(b) - along(a))] : [];
  });
}
