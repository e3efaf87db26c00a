import { describe, expect, it } from 'vitest';
import { cross, dot, minus, type Point } from '../geometry/index.js';
import { seededRandom } from '../signal/index.js';
import { sceneOf, Tracer, type TracedFace } from './index.js';

const plain = Array.from({ length: 8 }, () => 0.2);
const face = (...corners: Point[]): TracedFace => ({ corners, absorption: plain, scattering: plain });

/** Where a ray meets a triangle, by Cramer's rule in the ray's own form (Moeller and Trumbore 1997); Infinity for nowhere. */
function met(o: Point, d: Point, [a, b, c]: readonly Point[]): number {
  const [e1, e2] = [minus(b!, a!), minus(c!, a!)];
  const p = cross(d, e2);
  const det = dot(e1, p);
  const t = minus(o, a!);
  const u = dot(t, p) / det;
  const q = cross(t, e1);
  const v = dot(d, q) / det;
  const distance = dot(e2, q) / det;
  return u >= 0 && v >= 0 && u + v <= 1 && distance > 1e-7 ? distance : Infinity;
}

const random = seededRandom(11);
const within = (size: number) => size * (2 * random.uniform() - 1);
const somewhere = (size: number): Point => ({ x: within(size), y: within(size), z: within(size) });
function direction(): Point {
  const p = { x: random.normal(), y: random.normal(), z: random.normal() };
  const length = Math.hypot(p.x, p.y, p.z);
  return { x: p.x / length, y: p.y / length, z: p.z / length };
}

/** With WebAssembly, and without it. */
const WAYS = [false, true] as const;

describe.each([1, 3, 40, 2000].flatMap((count) => WAYS.map((plainly) => [count, plainly] as const)))(
  'among %i triangles (without WebAssembly: %s)',
  (count, plainly) => {
    const faces = Array.from({ length: count }, () => {
      const at = somewhere(10);
      const corner = () => {
        const by = somewhere(2);
        return { x: at.x + by.x, y: at.y + by.y, z: at.z + by.z };
      };
      return face(corner(), corner(), corner());
    });
    const tracer = new Tracer(sceneOf(faces), plainly);
    it('the first hit is the nearest of all', () => {
      for (let i = 0; i < 400; i++) {
        const [o, d] = [somewhere(12), direction()];
        const all = faces.map((f) => met(o, d, f.corners));
        const nearest = Math.min(...all);
        const hit = tracer.firstHit(o.x, o.y, o.z, d.x, d.y, d.z);
        expect(hit).toBe(nearest < Infinity);
        if (!hit) continue;
        expect(tracer.distance).toBeCloseTo(nearest, 9);
        expect(tracer.face).toBe(all.indexOf(nearest));
      }
    });
    it('two points see each other where nothing is nearer', () => {
      for (let i = 0; i < 200; i++) {
        const [a, b] = [somewhere(12), somewhere(12)];
        const way = minus(b, a);
        const length = Math.hypot(way.x, way.y, way.z);
        const d = { x: way.x / length, y: way.y / length, z: way.z / length };
        const isFree = faces.every((f) => !(met(a, d, f.corners) < length));
        expect(tracer.isFree(a.x, a.y, a.z, b.x, b.y, b.z)).toBe(isFree);
      }
    });
  },
);

/** A box of six rectangles. */
const box = (x: number, y: number, z: number): TracedFace[] => {
  const p = (i: number, j: number, k: number) => ({ x: i * x, y: j * y, z: k * z });
  return [
    face(p(0, 0, 0), p(0, 1, 0), p(0, 1, 1), p(0, 0, 1)),
    face(p(1, 0, 0), p(1, 1, 0), p(1, 1, 1), p(1, 0, 1)),
    face(p(0, 0, 0), p(1, 0, 0), p(1, 0, 1), p(0, 0, 1)),
    face(p(0, 1, 0), p(1, 1, 0), p(1, 1, 1), p(0, 1, 1)),
    face(p(0, 0, 0), p(1, 0, 0), p(1, 1, 0), p(0, 1, 0)),
    face(p(0, 0, 1), p(1, 0, 1), p(1, 1, 1), p(0, 1, 1)),
  ];
};

it.each(WAYS)(
  'nothing gets out of a box, not even through its edges (without WebAssembly: %s)',
  (plainly) => {
    const scene = sceneOf(box(7, 5, 3));
    expect(scene.isConvex).toBe(true);
    expect([...scene.areas]).toEqual([15, 15, 21, 21, 35, 35]);
    const tracer = new Tracer(scene, plainly);
    for (let i = 0; i < 20_000; i++) {
      const d = direction();
      expect(tracer.firstHit(2, 1, 1, d.x, d.y, d.z)).toBe(true);
    }
    // straight at edges, corners and the diagonals along which faces are parted
    for (const [x, y, z] of [
      [7, 5, 3],
      [0, 0, 0],
      [7, 2, 3],
      [3.5, 2.5, 0],
      [7, 2.5, 1.5],
    ] as const) {
      const length = Math.hypot(x - 2, y - 1, z - 1);
      const hit = tracer.firstHit(2, 1, 1, (x - 2) / length, (y - 1) / length, (z - 1) / length);
      expect(hit).toBe(true);
      expect(tracer.distance).toBeCloseTo(length, 9);
    }
  },
);

it('a floor in the shape of an L is no convex place, and its missing quarter holds nothing', () => {
  const scene = sceneOf([
    face(
      { x: 0, y: 0, z: 0 },
      { x: 4, y: 0, z: 0 },
      { x: 4, y: 2, z: 0 },
      { x: 2, y: 2, z: 0 },
      { x: 2, y: 4, z: 0 },
      { x: 0, y: 4, z: 0 },
    ),
    ...box(4, 4, 3).slice(2, 3),
  ]);
  expect(scene.areas[0]).toBe(12);
  const tracer = new Tracer(scene);
  expect(tracer.firstHit(3, 3, 1, 0, 0, -1)).toBe(false);
  expect(tracer.firstHit(1, 3, 1, 0, 0, -1)).toBe(true);
  expect(tracer.firstHit(3, 1, 1, 0, 0, -1)).toBe(true);
});

it('refuses what is no face', () => {
  const [good] = box(1, 1, 1);
  expect(() => sceneOf([])).toThrow(RangeError);
  expect(() => sceneOf([{ ...good!, corners: good!.corners.slice(0, 2) }])).toThrow(/corners of face 0/);
  expect(() => sceneOf([face({ x: 0, y: 0, z: 0 }, { x: 1, y: 0, z: 0 }, { x: 2, y: 0, z: 0 })])).toThrow(
    /area of face 0/,
  );
  expect(() => sceneOf([{ ...good!, absorption: plain.with(3, 1.01) }])).toThrow(/absorption.*500 Hz.*1.01/);
  expect(() => sceneOf([{ ...good!, scattering: plain.with(0, NaN) }])).toThrow(/scattering.*63 Hz.*NaN/);
  expect(() => sceneOf([{ ...good!, corners: good!.corners.with(1, { x: NaN, y: 0, z: 0 }) }])).toThrow(
    /value 3 is NaN/,
  );
});
