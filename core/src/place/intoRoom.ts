import { isWithin, type Corner, type Point } from '../geometry/index.js';
import { floorAt, roofAt, type Shape } from './shape.js';

/** What is drawn into a surface, or behind it, is brought so far in front of it, metres. */
const IN_FRONT_M = 0.02;

/** A point in the room: itself where it is in it, else the nearest one just in front of the wall, floor or ceiling that it is behind. */
export function intoRoom(shape: Shape, point: Point): Point {
  const at = isWithin(shape.outline, point)
    ? { x: point.x, y: point.y }
    : beforeNearestWall(shape.outline, point);
  const [low, high] = [floorAt(shape, at), shape.isEnclosed ? roofAt(shape, at) : Infinity];
  const off = Math.min(IN_FRONT_M, (high - low) / 4);
  return { ...at, z: Math.max(low + off, Math.min(high - off, point.z)) };
}

function beforeNearestWall(outline: readonly Corner[], p: Corner): Corner {
  let [best, least] = [outline[0]!, Infinity];
  outline.forEach((a, i) => {
    const b = outline[(i + 1) % outline.length]!;
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const long = Math.hypot(dx, dy);
    if (!(long > 0)) return;
    // not into a corner, where another wall is as near
    const margin = Math.min(IN_FRONT_M, long / 4) / long;
    const t = ((p.x - a.x) * dx + (p.y - a.y) * dy) / long ** 2;
    const held = Math.max(margin, Math.min(1 - margin, t));
    const on = { x: a.x + held * dx, y: a.y + held * dy };
    const away = Math.hypot(p.x - on.x, p.y - on.y);
    if (away >= least) return;
    const inward = [1, -1]
      .map((way) => ({ x: on.x - (way * IN_FRONT_M * dy) / long, y: on.y + (way * IN_FRONT_M * dx) / long }))
      .find((c) => isWithin(outline, c));
    if (inward) [best, least] = [inward, away];
  });
  return best;
}
