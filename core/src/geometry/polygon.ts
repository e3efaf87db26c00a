/** A corner of something seen from above, metres. */
export interface Corner {
  x: number;
  y: number;
}

/** One side of a straight line along an axis: where `axis` is at most, or at least, `at`. */
export interface HalfPlane {
  axis: 'x' | 'y';
  at: number;
  side: 'below' | 'above';
}

/** Area within an outline, above 0 where its corners go round from x towards y. */
export function signedArea(outline: readonly Corner[]): number {
  let twice = 0;
  outline.forEach((a, i) => {
    const b = outline[(i + 1) % outline.length]!;
    twice += a.x * b.y - b.x * a.y;
  });
  return twice / 2;
}

export const areaOf = (outline: readonly Corner[]): number => Math.abs(signedArea(outline));

/**
 * Integral of z = c0 + cx x + cy y over the area within an outline: exact, by the area and its first moments.
 */
export function integralOver(outline: readonly Corner[], [c0, cx, cy]: [number, number, number]): number {
  let [area, momentX, momentY] = [0, 0, 0];
  outline.forEach((a, i) => {
    const b = outline[(i + 1) % outline.length]!;
    const cross = a.x * b.y - b.x * a.y;
    area += cross / 2;
    momentX += ((a.x + b.x) * cross) / 6;
    momentY += ((a.y + b.y) * cross) / 6;
  });
  return Math.sign(area) * (c0 * area + cx * momentX + cy * momentY);
}

/** The least and the greatest x and y of points. @throws RangeError without any */
export function boundsOf(points: readonly Corner[]): { least: Corner; most: Corner } {
  if (points.length === 0) throw new RangeError('boundsOf: no points');
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  const of = (pick: (...values: number[]) => number) => ({ x: pick(...xs), y: pick(...ys) });
  return { least: of(Math.min), most: of(Math.max) };
}

/** Whether a point lies within an outline (even-odd rule). What lies on its sides may be called either. */
export function isWithin(outline: readonly Corner[], { x, y }: Corner): boolean {
  let inside = false;
  outline.forEach((a, i) => {
    const b = outline[(i + 1) % outline.length]!;
    if (a.y > y !== b.y > y && x < a.x + ((y - a.y) * (b.x - a.x)) / (b.y - a.y)) inside = !inside;
  });
  return inside;
}

/** Metres from a point to the nearest side of an outline. */
export function distanceToSides(outline: readonly Corner[], p: Corner): number {
  return Math.min(
    ...outline.map((a, i) => {
      const b = outline[(i + 1) % outline.length]!;
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      const along = dx * dx + dy * dy;
      const t = along > 0 ? Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / along)) : 0;
      return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
    }),
  );
}

/**
 * What of an outline lies in a half-plane (Sutherland and Hodgman 1974). Where an outline that is not convex falls apart, the
 * parts stay joined along the cut: their area and moments are right.
 */
export function clipped(outline: readonly Corner[], { axis, at, side }: HalfPlane): Corner[] {
  const depth = (p: Corner) => (side === 'below' ? at - p[axis] : p[axis] - at);
  return outline.flatMap((a, i) => {
    const b = outline[(i + 1) % outline.length]!;
    const [da, db] = [depth(a), depth(b)];
    const kept = da >= 0 ? [{ x: a.x, y: a.y }] : [];
    if (da >= 0 === db >= 0 || da === 0 || db === 0) return kept;
    const t = da / (da - db);
    return [...kept, { x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) }];
  });
}

/** Pairs of sides of an outline that cross or touch without being neighbours; a side is named by its first corner. */
export function crossingSides(outline: readonly Corner[]): [number, number][] {
  const n = outline.length;
  const found: [number, number][] = [];
  for (let i = 0; i < n; i++)
    for (let j = i + 2; j < n; j++) {
      if (i === 0 && j === n - 1) continue;
      const [a, b, c, d] = [outline[i]!, outline[(i + 1) % n]!, outline[j]!, outline[(j + 1) % n]!];
      if (meet(a, b, c, d)) found.push([i, j]);
    }
  return found;
}

const turn = (a: Corner, b: Corner, c: Corner) =>
  Math.sign((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x));
const between = (a: Corner, b: Corner, p: Corner) =>
  Math.min(a.x, b.x) <= p.x &&
  p.x <= Math.max(a.x, b.x) &&
  Math.min(a.y, b.y) <= p.y &&
  p.y <= Math.max(a.y, b.y);

/** Whether two stretches of straight line have a point in common. */
function meet(a: Corner, b: Corner, c: Corner, d: Corner): boolean {
  const [t1, t2, t3, t4] = [turn(a, b, c), turn(a, b, d), turn(c, d, a), turn(c, d, b)];
  if (t1 !== t2 && t3 !== t4) return true;
  return (
    (t1 === 0 && between(a, b, c)) ||
    (t2 === 0 && between(a, b, d)) ||
    (t3 === 0 && between(c, d, a)) ||
    (t4 === 0 && between(c, d, b))
  );
}
