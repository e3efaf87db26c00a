import type { Point } from '@pebble-hall/core/geometry';
import {
  disagreements,
  impossibleTriangles,
  LOW_DISTANCE_M,
  toleranceM,
  type Distance,
  type DistanceProblem,
} from '@pebble-hall/core/commissioning';
import { type KnownDistance, type Project, fittedOf } from '@pebble-hall/core/project';

/** A place that distances are between: a loudspeaker or the home spot. */
export interface NamedPlace {
  id: string;
  name: string;
  position: Point;
  isLow: boolean;
}

export function placesOf(project: Project): NamedPlace[] {
  const home = project.place.spots[0]!;
  return [
    ...fittedOf(project).map(({ id, name, position, role }) => ({
      id,
      name,
      position,
      isLow: role === 'subwoofer',
    })),
    { id: home.id, name: home.name, position: home.position, isLow: false },
  ];
}

export interface PairOfPlaces extends KnownDistance {
  planM: number;
  /** what holds: set by hand, else typed, else heard; null when only the plan knows */
  usedM: number | null;
}

const isPair = (d: { a: string; b: string }, a: string, b: string) =>
  (d.a === a && d.b === b) || (d.a === b && d.b === a);

/** Every pair of places, with what is known of it. */
export function pairsOf(project: Project): PairOfPlaces[] {
  const places = placesOf(project);
  return places.flatMap((a, i) =>
    places.slice(i + 1).map((b) => {
      const known = project.rig.distances.find((d) => isPair(d, a.id, b.id));
      const { typedM = null, heardM = null, adjustedM = null } = known ?? {};
      const planM = Math.hypot(
        a.position.x - b.position.x,
        a.position.y - b.position.y,
        a.position.z - b.position.z,
      );
      return { a: a.id, b: b.id, typedM, heardM, adjustedM, planM, usedM: adjustedM ?? typedM ?? heardM };
    }),
  );
}

/** The list with one pair's values changed; a pair of which nothing is known any more falls out. */
export function withDistance(
  list: KnownDistance[],
  a: string,
  b: string,
  next: Partial<Pick<KnownDistance, 'typedM' | 'heardM' | 'adjustedM'>>,
): KnownDistance[] {
  const before = list.find((d) => isPair(d, a, b)) ?? { a, b, typedM: null, heardM: null, adjustedM: null };
  const after = { ...before, ...next };
  const rest = list.filter((d) => !isPair(d, a, b));
  return after.typedM === null && after.heardM === null && after.adjustedM === null ? rest : [...rest, after];
}

/** What cannot be right among the distances that are known. */
export function distanceProblems(project: Project): DistanceProblem[] {
  const pairs = pairsOf(project);
  const low = new Set(placesOf(project).flatMap((p) => (p.isLow ? [p.id] : [])));
  const used = pairs.flatMap(({ a, b, usedM }): Distance[] =>
    usedM === null ? [] : [{ a, b, metres: usedM }],
  );
  const list = (key: 'typedM' | 'heardM') =>
    pairs.flatMap((p): Distance[] =>
      p[key] === null || p.adjustedM !== null ? [] : [{ a: p.a, b: p.b, metres: p[key] }],
    );
  const differ = disagreements(list('typedM'), list('heardM')).filter(
    (d) =>
      d.kind !== 'disagree' ||
      !(low.has(d.a) || low.has(d.b)) ||
      Math.abs(d.metres - d.others) > LOW_DISTANCE_M,
  );
  // heard at the home spot, a subwoofer is known less well; by tape it is as exact as any
  const isVague = (a: string, b: string) =>
    (low.has(a) || low.has(b)) &&
    pairs.some((p) => isPair(p, a, b) && p.typedM === null && p.adjustedM === null);
  const tolerance = (a: string, b: string, metres: number) =>
    isVague(a, b) ? LOW_DISTANCE_M : toleranceM(metres);
  return [...impossibleTriangles(used, tolerance), ...differ];
}

/** A problem as one sentence. */
export function problemSentence(
  problem: DistanceProblem,
  nameOf: (id: string) => string,
  lengthOf: (m: number) => string,
): string {
  const pair = `${nameOf(problem.a)} to ${nameOf(problem.b)}`;
  return problem.kind === 'triangle'
    ? `${pair} cannot be ${lengthOf(problem.metres)}: by way of ${nameOf(problem.by)} it is only ${lengthOf(problem.atMost)}. One of the three is wrong.`
    : `${pair}: typed ${lengthOf(problem.metres)}, heard ${lengthOf(problem.others)}. Measure it again, or set one by hand.`;
}
