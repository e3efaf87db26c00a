import { describe, expect, it } from 'vitest';
import type { Point } from '../geometry/index.js';
import { facetsOf, plainFace, rectangle, type Shape } from '../place/index.js';
import { facetArrivals, speedOfSound, visitImages, type BoxRoom } from './index.js';

const absorption = Array.from({ length: 8 }, () => 0.2);
const shape = (over: Partial<Shape>): Shape => {
  const outline = over.outline ?? rectangle(5, 4);
  return {
    outline,
    heightM: 3,
    floorRise: 0,
    isEnclosed: true,
    ceiling: { kind: 'flat' },
    walls: outline.map((_, i) => plainFace(`${i}`, absorption)),
    floor: plainFace('floor', absorption),
    roof: plainFace('roof', absorption),
    ...over,
  };
};
const sorted = (values: number[]) => values.sort((a, b) => a - b);
type Vector = [number, number, number];
const vector = ({ x, y, z }: Point): Vector => [x, y, z];
const minus = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const inner = (a: Vector, b: Vector) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const crossed = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const size = (a: Vector) => Math.hypot(...a);

it('in a box: the same ways as the closed form, order by order', () => {
  const [source, receiver] = [
    { x: 1.13, y: 0.71, z: 1.37 },
    { x: 3.9, y: 2.83, z: 1.21 },
  ];
  const walls = Array.from({ length: 6 }, () => absorption) as unknown as BoxRoom['absorption'];
  const air = { temperatureC: 20, relativeHumidityPercent: 50 };
  const box: BoxRoom = { size: { x: 5, y: 4, z: 3 }, absorption: walls, air };
  const longest = 40;
  const closed: { distance: number; hits: number; emission: number[] }[] = [];
  visitImages(box, source, receiver, longest / speedOfSound(20), ({ distance, hits, emission }) =>
    closed.push({ distance, hits: hits.reduce((a, b) => a + b), emission: [...emission] }),
  );
  const found = facetArrivals(facetsOf(shape({})), source, receiver, 4, longest);
  for (let order = 0; order <= 4; order++) {
    const expected = closed.filter((c) => c.hits === order);
    const got = found.filter((f) => f.faces.length === order);
    expect(got.length, `order ${order}`).toBe(expected.length);
    const distances = sorted(expected.map((e) => e.distance));
    sorted(got.map((g) => g.distance)).forEach((d, i) => expect(d).toBeCloseTo(distances[i]!, 9));
  }
  const floor = found.find((f) => f.faces.length === 1 && f.faces[0] === 0)!;
  const same = closed.find((c) => c.hits === 1 && Math.abs(c.distance - floor.distance) < 1e-9)!;
  vector(floor.emission).forEach((v, k) => expect(v).toBeCloseTo(same.emission[k]!, 9));
});

/**
 * The way over given planes by searching for the shortest one (Fermat), without any image; null where it is no reflection
 * within the faces, or leaves the room on its way.
 */
function shortestWay(
  faces: Vector[][],
  source: Vector,
  receiver: Vector,
  isInside: (p: Vector) => boolean,
): number | null {
  const frames = faces.map(([o, a, b]) => {
    const u = minus(a!, o!);
    const normal = crossed(u, minus(b!, o!));
    const e1 = u.map((v) => v / size(u)) as Vector;
    const n = normal.map((v) => v / size(normal)) as Vector;
    return { o: o!, e1, e2: crossed(n, e1), n };
  });
  const place = (t: number[]): Vector[] =>
    frames.map(
      ({ o, e1, e2 }, i) => o.map((v, k) => v + t[2 * i]! * e1[k]! + t[2 * i + 1]! * e2[k]!) as Vector,
    );
  const length = (t: number[]) => {
    const points = [source, ...place(t), receiver];
    return points.slice(1).reduce((sum, p, i) => sum + size(minus(p, points[i]!)), 0);
  };
  // the length is convex in t: coordinate by coordinate it finds its least
  const t = frames.flatMap(({ o, e1, e2 }) => {
    const middle = minus(source.map((v, k) => (v + receiver[k]!) / 2) as Vector, o);
    return [inner(middle, e1), inner(middle, e2)];
  });
  let step = 2;
  while (step > 1e-9) {
    let better = false;
    for (let i = 0; i < t.length; i++)
      for (const by of [step, -step]) {
        const next = t.with(i, t[i]! + by);
        if (length(next) < length(t) - 1e-15) {
          t[i] = next[i]!;
          better = true;
        }
      }
    if (!better) step /= 2;
  }
  const on = place(t);
  const points = [source, ...on, receiver];
  // both points on the edge that two faces share: the shortest one, but no reflection
  if (on.length === 2 && size(minus(on[0]!, on[1]!)) < 1e-4) return null;
  for (const [i, { o, n }] of frames.entries()) {
    const sides = [points[i]!, points[i + 2]!].map((p) => inner(minus(p, o), n));
    if (sides[0]! * sides[1]! <= 1e-9) return null; // through it, not off it
    // around a point of a face: the sum of the angles to its corners is a full turn
    const corners = faces[i]!.map((c) => minus(c, on[i]!));
    const turn = corners.reduce((sum, c, k) => {
      const d = corners[(k + 1) % corners.length]!;
      return sum + Math.atan2(inner(crossed(c, d), n), inner(c, d));
    }, 0);
    if (Math.abs(Math.abs(turn) - 2 * Math.PI) > 0.5) return null;
  }
  for (let i = 1; i < points.length; i++)
    for (let k = 1; k < 400; k++) {
      const [a, b] = [points[i - 1]!, points[i]!];
      if (!isInside(a.map((v, m) => v + ((b[m]! - v) * k) / 400) as Vector)) return null;
    }
  return length(t);
}

describe.each([
  {
    name: 'an L',
    room: shape({
      outline: [
        { x: 0, y: 0 },
        { x: 7, y: 0 },
        { x: 7, y: 3 },
        { x: 3, y: 3 },
        { x: 3, y: 6 },
        { x: 0, y: 6 },
      ],
    }),
    source: { x: 5.9, y: 1.3, z: 1.1 },
    receivers: [
      { x: 1.1, y: 4.7, z: 1.4 },
      { x: 2.2, y: 1.9, z: 1.2 },
    ],
    isInside: ([x, y, z]: Vector) =>
      z > 0 && z < 3 && x > 0 && y > 0 && ((x < 7 && y < 3) || (x < 3 && y < 6)),
  },
  {
    name: 'a gable over a floor that rises',
    room: shape({
      outline: rectangle(8, 6),
      heightM: 3,
      floorRise: 0.05,
      ceiling: { kind: 'ridged', along: 'x', highM: 5 },
    }),
    source: { x: 1.2, y: 2.1, z: 2.3 },
    receivers: [{ x: 6.3, y: 4.4, z: 1.7 }],
    isInside: ([x, y, z]: Vector) =>
      x > 0 && x < 8 && y > 0 && y < 6 && z > 0.05 * x && z < 5 - (2 / 3) * Math.abs(y - 3),
  },
])('in $name', ({ room, source, receivers, isInside }) => {
  it('finds the same ways as a search for the shortest over every pair of faces', { tags: 'bars' }, () => {
    const facets = facetsOf(room);
    const faces = facets.map((f) => f.corners.map(vector));
    for (const receiver of receivers) {
      const found = facetArrivals(facets, source, receiver, 2, 100);
      const expected: number[] = [];
      const [s, r] = [vector(source), vector(receiver)];
      const add = (over: number[]) => {
        const way = shortestWay(
          over.map((i) => faces[i]!),
          s,
          r,
          isInside,
        );
        if (way !== null) expected.push(way);
      };
      add([]);
      for (let i = 0; i < faces.length; i++) {
        add([i]);
        for (let j = 0; j < faces.length; j++) if (j !== i) add([i, j]);
      }
      expect(found.length).toBe(expected.length);
      expect(found.length).toBeGreaterThan(5);
      sorted(expected);
      sorted(found.map((f) => f.distance)).forEach((d, i) => expect(d).toBeCloseTo(expected[i]!, 5));
    }
  });
});

it('refuses orders and points that make no sense', () => {
  const facets = facetsOf(shape({}));
  const p = { x: 1, y: 1, z: 1 };
  expect(() => facetArrivals(facets, p, p, 9, 10)).toThrow(RangeError);
  expect(() => facetArrivals(facets, p, { ...p, x: NaN }, 1, 10)).toThrow(RangeError);
  expect(() => facetArrivals(facets, p, p, 1, NaN)).toThrow(RangeError);
  const line = { corners: [p, { ...p, x: 2 }, { ...p, x: 3 }] };
  expect(() => facetArrivals([line], p, { ...p, y: 2 }, 1, 10)).toThrow(/without an area/);
});
