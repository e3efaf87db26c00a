import { describe, expect, it } from 'vitest';
import type { Point } from '../geometry/index.js';
import { checkFaces, mendMesh, type MeshSurface } from './index.js';
import { boxFaces } from './roomsForTest.js';

const numbers = (corners: readonly Point[]) => corners.flatMap(({ x, y, z }) => [x, y, z]);
/** Sides of a box as triangles, each side a surface of its own. */
const sidesOf = (size: Point): MeshSurface[] =>
  boxFaces(size, 0, 0).map(({ corners: [a, b, c, d] }, i) => ({
    name: `side ${i}`,
    triangles: Float64Array.from([...numbers([a!, b!, c!]), ...numbers([a!, c!, d!])]),
  }));
const SIZE = { x: 6, y: 4, z: 3 };
const none = {
  absorption: Array.from({ length: 8 }, () => 0.1),
  scattering: Array.from({ length: 8 }, () => 0.1),
};
const leaksOf = (faces: { corners: Point[] }[]) =>
  checkFaces(
    faces.map(({ corners }) => ({ corners, ...none })),
    [{ name: 'S', position: { x: 2, y: 2, z: 1.5 } }],
    [],
  ).filter((f) => f.kind === 'leak');

describe('a mesh of somebody else', () => {
  it('that is whole stays as it is, its triangles put together in pairs', () => {
    const { faces, volume, mended } = mendMesh(sidesOf(SIZE));
    expect(mended).toEqual({ joined: 0, doubled: 0, tiny: 0, filled: [] });
    expect(faces.map((f) => f.corners.length)).toEqual([4, 4, 4, 4, 4, 4]);
    expect(volume).toBeCloseTo(72, 6);
    expect(leaksOf(faces)).toEqual([]);
  });
  it('with a triangle missing is closed where that is flat, by the surface around it', () => {
    const open = sidesOf(SIZE).map((s, i) => (i === 3 ? { ...s, triangles: s.triangles.slice(0, 9) } : s));
    const before = mendMesh(open);
    // half a wall is more than a twentieth of the whole: left open, and told as a leak
    expect(before.mended.filled).toEqual([]);
    expect(leaksOf(before.faces)).toHaveLength(1);
    // a pane of a window of 0.4 m2, cut out of the floor
    const sides = sidesOf(SIZE);
    const floor = sides.findIndex(({ triangles }) => triangles.every((v, i) => i % 3 !== 2 || v === 0));
    const at = (x: number, y: number): Point => ({ x, y, z: 0 });
    const [p, q, r, s] = [at(1, 1), at(1.8, 1), at(1.8, 1.5), at(1, 1.5)];
    const [a, b, c, d] = [at(0, 0), at(6, 0), at(6, 4), at(0, 4)];
    const ring = [
      [a, b, q],
      [a, q, p],
      [b, c, r],
      [b, r, q],
      [c, d, s],
      [c, s, r],
      [d, a, p],
      [d, p, s],
    ].flatMap((t) => numbers(t));
    const holed = sides.map((side, i) =>
      i === floor ? { ...side, triangles: Float64Array.from(ring) } : side,
    );
    const { faces, mended, volume } = mendMesh(holed);
    expect(mended.filled).toHaveLength(1);
    expect(mended.filled[0]).toBeCloseTo(0.4, 9);
    expect(faces.at(-1)!.surface).toBe(floor);
    expect(leaksOf(faces)).toEqual([]);
    expect(volume).toBeCloseTo(72, 6);
  });
  it('loses what is there twice or is nothing, and joins corners that lie beside each other', () => {
    const sides = sidesOf(SIZE);
    const beside = sides[1]!.triangles.map((v, i) => (i % 3 === 0 ? v + 4e-4 : v));
    const line = Float64Array.from([0, 0, 0, 1, 0, 0, 2, 0, 0]);
    const { faces, mended } = mendMesh([
      ...sides.map((s, i) => (i === 1 ? { ...s, triangles: beside } : s)),
      { name: 'again', triangles: sides[2]!.triangles },
      { name: 'line', triangles: line },
    ]);
    expect(mended).toMatchObject({ doubled: 2, tiny: 1, filled: [] });
    expect(mended.joined).toBeGreaterThan(0);
    expect(faces).toHaveLength(6);
    expect(leaksOf(faces)).toEqual([]);
  });
  it('of nothing is refused', () => {
    expect(() => mendMesh([{ name: 'none', triangles: new Float64Array(0) }])).toThrow(/number of faces/);
  });
});
