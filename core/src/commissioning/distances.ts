import { solveLinear } from '../signal/index.js';
import { distanceBetween, type Point } from '../geometry/index.js';
/** A distance between two named points, metres. */
export interface Distance {
  a: string;
  b: string;
  metres: number;
}

/** Why a set of distances cannot be right. */
export type DistanceProblem =
  | { kind: 'triangle'; a: string; b: string; by: string; metres: number; atMost: number; atLeast: number }
  | { kind: 'disagree'; a: string; b: string; metres: number; others: number };

/** Tolerance: 5 cm, or 2 % of long ones. */
export const toleranceM = (metres: number): number => Math.max(0.05, 0.02 * metres);

/**
 * Triangles that cannot be: one side longer than the other two together, by more than the tolerance.
 * @param distances each pair once
 * @param tolerance of one distance, metres; the largest of the three sides counts
 */
export function impossibleTriangles(
  distances: Distance[],
  tolerance: (a: string, b: string, metres: number) => number = (_a, _b, metres) => toleranceM(metres),
): DistanceProblem[] {
  const known = new Map(
    distances.flatMap(({ a, b, metres }) => [
      [`${a}\n${b}`, metres] as const,
      [`${b}\n${a}`, metres] as const,
    ]),
  );
  const points = [...new Set(distances.flatMap(({ a, b }) => [a, b]))];
  const out: DistanceProblem[] = [];
  for (const { a, b, metres } of distances) {
    let worst: DistanceProblem | null = null;
    for (const by of points) {
      const [first, second] = [known.get(`${a}\n${by}`), known.get(`${by}\n${b}`)];
      if (by === a || by === b || first === undefined || second === undefined) continue;
      const over = metres - (first + second);
      const allowed = Math.max(tolerance(a, b, metres), tolerance(a, by, first), tolerance(by, b, second));
      if (over > allowed && (!worst || (worst.kind === 'triangle' && over > worst.metres - worst.atMost))) {
        worst = {
          kind: 'triangle',
          a,
          b,
          by,
          metres,
          atMost: first + second,
          atLeast: Math.abs(first - second),
        };
      }
    }
    if (worst) out.push(worst);
  }
  return out;
}

/** Pairs that two lists know differently by more than the tolerance; `metres` is the first list's value. */
export function disagreements(these: Distance[], others: Distance[]): DistanceProblem[] {
  return these.flatMap(({ a, b, metres }) => {
    const other = others.find((o) => (o.a === a && o.b === b) || (o.a === b && o.b === a));
    if (!other || Math.abs(other.metres - metres) <= toleranceM(metres)) return [];
    return { kind: 'disagree', a, b, metres, others: other.metres } as const;
  });
}

/** How far a planned place pulls on the fit, against 1 for a distance: it settles what distances leave open. */
const PLAN_WEIGHT = 0.02;

/**
 * Moves points so that their distances fit: least squares over the distances, with a weak pull to where the plan has them
 * (Gauss-Newton, damped). Heights stay: distances over a floor say little of them.
 * @param fixed points that do not move (a spot that was marked on the floor)
 * @returns new places of all points, and the RMS of what does not fit, metres
 */
export function fitPositions(
  points: Record<string, Point>,
  distances: Distance[],
  fixed: string[],
): { points: Record<string, Point>; rmsM: number } {
  const names = Object.keys(points).filter((name) => !fixed.includes(name));
  const index = new Map(names.map((name, i) => [name, 2 * i]));
  const now = Object.fromEntries(Object.entries(points).map(([name, p]) => [name, { ...p }]));
  const usable = distances.filter(({ a, b }) => points[a] && points[b]);
  const n = 2 * names.length;
  const lengthOf = ({ a, b }: Distance) => {
    const [p, q] = [now[a]!, now[b]!];
    return Math.max(1e-6, distanceBetween(p, q));
  };
  for (let round = 0; round < 60 && n > 0; round++) {
    const matrix = Array.from({ length: n }, (_, i) =>
      Float64Array.from({ length: n }, (__, j) => (i === j ? PLAN_WEIGHT ** 2 + 1e-9 : 0)),
    );
    const right = new Float64Array(n);
    names.forEach((name, i) => {
      right[2 * i] = PLAN_WEIGHT ** 2 * (points[name]!.x - now[name]!.x);
      right[2 * i + 1] = PLAN_WEIGHT ** 2 * (points[name]!.y - now[name]!.y);
    });
    for (const distance of usable) {
      const length = lengthOf(distance);
      const off = distance.metres - length;
      const [p, q] = [now[distance.a]!, now[distance.b]!];
      const slope = new Map<number, number>();
      const [ia, ib] = [index.get(distance.a), index.get(distance.b)];
      const [ux, uy] = [(p.x - q.x) / length, (p.y - q.y) / length];
      if (ia !== undefined) slope.set(ia, ux).set(ia + 1, uy);
      if (ib !== undefined) slope.set(ib, -ux).set(ib + 1, -uy);
      for (const [i, si] of slope) {
        right[i] = right[i]! + si * off;
        for (const [j, sj] of slope) matrix[i]![j] = matrix[i]![j]! + si * sj;
      }
    }
    const step = solveLinear(matrix, right);
    let most = 0;
    names.forEach((name, i) => {
      now[name]!.x += step[2 * i]!;
      now[name]!.y += step[2 * i + 1]!;
      most = Math.max(most, Math.abs(step[2 * i]!), Math.abs(step[2 * i + 1]!));
    });
    if (most < 1e-7) break;
  }
  const squares = usable.reduce((sum, d) => sum + (d.metres - lengthOf(d)) ** 2, 0);
  return { points: now, rmsM: usable.length ? Math.sqrt(squares / usable.length) : 0 };
}
