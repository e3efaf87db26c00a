import type { Corner } from '../geometry/index.js';
import type { LevelGrid } from './grid.js';

/**
 * Where values over a grid pass through a level, as lines: by marching squares, straight within each (the saddle by the mean of
 * its four corners). Squares with a value that is none are passed over.
 * @param values as many as the grid has points
 * @returns lines, each from end to end; a closed one ends where it began
 */
export function isoLines(
  { columns, rows, x0, y0, step, isIn }: LevelGrid,
  values: ArrayLike<number>,
  level: number,
): Corner[][] {
  /** by the edge that it crosses: where, and its neighbours */
  const at = new Map<number, { point: Corner; next: number[] }>();
  const edgeId = (c: number, r: number, isUp: boolean) => 2 * (r * columns + c) + (isUp ? 1 : 0);
  const join = (a: number, b: number) => {
    at.get(a)!.next.push(b);
    at.get(b)!.next.push(a);
  };
  const cross = (c: number, r: number, isUp: boolean): number => {
    const id = edgeId(c, r, isUp);
    if (at.has(id)) return id;
    const from = values[r * columns + c]!;
    const to = values[isUp ? (r + 1) * columns + c : r * columns + c + 1]!;
    const t = (level - from) / (to - from);
    at.set(id, {
      point: { x: x0 + step * (c + (isUp ? 0 : t)), y: y0 + step * (r + (isUp ? t : 0)) },
      next: [],
    });
    return id;
  };
  for (let r = 0; r + 1 < rows; r++)
    for (let c = 0; c + 1 < columns; c++) {
      const places = [r * columns + c, r * columns + c + 1, (r + 1) * columns + c + 1, (r + 1) * columns + c];
      const corner = places.map((n) => values[n]!);
      if (corner.some((v) => !Number.isFinite(v)) || places.every((n) => isIn[n] === 0)) continue;
      const over = corner.map((v) => v >= level);
      const [low, right, high, left] = [
        () => cross(c, r, false),
        () => cross(c + 1, r, true),
        () => cross(c, r + 1, false),
        () => cross(c, r, true),
      ];
      const sides = [
        { is: over[0] !== over[1], at: low },
        { is: over[1] !== over[2], at: right },
        { is: over[2] !== over[3], at: high },
        { is: over[3] !== over[0], at: left },
      ].filter((s) => s.is);
      if (sides.length === 2) join(sides[0]!.at(), sides[1]!.at());
      else if (sides.length === 4) {
        const isMiddleOver = corner.reduce((a, b) => a + b, 0) / 4 >= level;
        // the two corners that differ from the middle are cut off by themselves
        if (isMiddleOver === over[0]) {
          join(low(), right());
          join(high(), left());
        } else {
          join(low(), left());
          join(right(), high());
        }
      }
    }
  return chained(at);
}

function chained(at: Map<number, { point: Corner; next: number[] }>): Corner[][] {
  const used = new Set<number>();
  const lines: Corner[][] = [];
  const follow = (start: number) => {
    const line: Corner[] = [];
    let [before, now] = [-1, start];
    for (;;) {
      line.push(at.get(now)!.point);
      used.add(now);
      const next = at.get(now)!.next.find((n) => n !== before && !used.has(n));
      if (next === undefined) {
        if (line.length > 2 && at.get(now)!.next.includes(start)) line.push(at.get(start)!.point);
        break;
      }
      [before, now] = [now, next];
    }
    lines.push(line);
  };
  for (const [id, { next }] of at) if (next.length === 1 && !used.has(id)) follow(id);
  for (const id of at.keys()) if (!used.has(id)) follow(id);
  return lines.filter((l) => l.length > 1);
}

/** Where two sets of lines cross, each place once. */
export function crossings(a: readonly Corner[][], b: readonly Corner[][]): Corner[] {
  const found: Corner[] = [];
  for (const one of a)
    for (let i = 0; i + 1 < one.length; i++)
      for (const other of b)
        for (let j = 0; j + 1 < other.length; j++) {
          const at = meeting(one[i]!, one[i + 1]!, other[j]!, other[j + 1]!);
          if (at && found.every((f) => Math.hypot(f.x - at.x, f.y - at.y) > 1e-6)) found.push(at);
        }
  return found;
}

function meeting(a: Corner, b: Corner, c: Corner, d: Corner): Corner | null {
  const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, d.x - c.x, d.y - c.y];
  const det = ux * vy - uy * vx;
  if (Math.abs(det) < 1e-15) return null;
  const s = ((c.x - a.x) * vy - (c.y - a.y) * vx) / det;
  const t = ((c.x - a.x) * uy - (c.y - a.y) * ux) / det;
  return s >= 0 && s <= 1 && t >= 0 && t <= 1 ? { x: a.x + s * ux, y: a.y + s * uy } : null;
}
