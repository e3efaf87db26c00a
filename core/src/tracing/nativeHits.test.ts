import { describe, expect, it } from 'vitest';
import { compiled } from '../../../scripts/makeNative.mjs';
import type { Point } from '../geometry/index.js';
import { seededRandom } from '../signal/index.js';
import { FIRST_HIT } from './firstHitBytes.js';
import { sceneOf, Tracer, type TracedFace } from './index.js';
import { nativeHitsOf } from './nativeHits.js';
import { boxFaces } from './roomsForTest.js';
import { wideTreeOf } from './wideTree.js';

const random = seededRandom(29);

/** A hall with boxes standing in it, moved as far from zero as asked. */
function furnished(boxes: number, by: number): TracedFace[] {
  const moved = (faces: TracedFace[], { x, y, z }: Point) =>
    faces.map((f) => ({
      ...f,
      corners: f.corners.map((c) => ({ x: c.x + x + by, y: c.y + y - by, z: c.z + z })),
    }));
  const inside = Array.from({ length: boxes }, () => {
    const size = { x: 0.2 + random.uniform(), y: 0.2 + random.uniform(), z: 0.2 + random.uniform() };
    const at = { x: 20 * random.uniform(), y: 10 * random.uniform(), z: 4 * random.uniform() };
    return moved(boxFaces(size, 0.1, 0.1), at);
  });
  return [...moved(boxFaces({ x: 24, y: 13, z: 8 }, 0.1, 0.1), { x: 0, y: 0, z: 0 }), ...inside.flat()];
}

it('the module is what its source compiles to', { timeout: 60_000 }, async () => {
  expect([...(await compiled('firstHit'))]).toEqual([...FIRST_HIT]);
});

describe.each([0, 700])('in a hall that lies %i m from zero', (by) => {
  const scene = sceneOf(furnished(120, by));
  const [native, plain] = [new Tracer(scene), new Tracer(scene, true)];
  const inside = (): Point => ({
    x: by + 24 * random.uniform(),
    y: 13 * random.uniform() - by,
    z: 8 * random.uniform(),
  });
  const directions = (): Point => {
    const d = { x: random.normal(), y: random.normal(), z: random.normal() };
    // one in four runs along an axis or within a plane
    if (random.uniform() < 0.25) d[(['x', 'y', 'z'] as const)[Math.floor(3 * random.uniform())]!] = 0;
    const length = Math.hypot(d.x, d.y, d.z);
    return { x: d.x / length, y: d.y / length, z: d.z / length };
  };

  it('rays meet with it what they meet without it, as far away to the last bit', () => {
    expect(nativeHitsOf(scene)).not.toBeNull();
    for (let i = 0; i < 20_000; i++) {
      const [o, d] = [inside(), directions()];
      const met = native.firstHit(o.x, o.y, o.z, d.x, d.y, d.z);
      expect(met).toBe(plain.firstHit(o.x, o.y, o.z, d.x, d.y, d.z));
      expect(native.distance).toBe(plain.distance);
    }
  });

  it('points see with it what they see without it', () => {
    for (let i = 0; i < 20_000; i++) {
      const [a, b] = [inside(), inside()];
      const way = [a.x, a.y, a.z, b.x, b.y, b.z] as const;
      expect(native.isFree(...way)).toBe(plain.isFree(...way));
    }
  });
});

it('a ray from far outside goes the plain way, and meets what it should', () => {
  const tracer = new Tracer(sceneOf(boxFaces({ x: 7, y: 5, z: 3 }, 0.1, 0.1)));
  expect(tracer.firstHit(-1e6, 2, 1, 1, 0, 0)).toBe(true);
  expect(tracer.distance).toBeCloseTo(1e6, 6);
  expect(tracer.firstHit(NaN, 2, 1, 1, 0, 0)).toBe(false);
});

it('a wide tree holds every leaf once, four children to a node at most, each within the box of its node', () => {
  const { tree } = sceneOf(furnished(60, 0));
  const { nodes, depth } = wideTreeOf(tree);
  const leaves = nodes.flatMap((n) => n.flatMap(({ child }) => (child < 0 ? [-1 - child] : [])));
  const all = [...tree.counts.keys()].filter((s) => tree.counts[s]! > 0);
  expect(leaves.sort((a, b) => a - b)).toEqual(all);
  expect(depth).toBeGreaterThan(2);
  const within = (inner: Float64Array, outer: Float64Array) =>
    inner.every((v, k) => (k < 3 ? v >= outer[k]! : v <= outer[k]!));
  for (const node of nodes) {
    expect(node.length).toBeLessThanOrEqual(4);
    for (const { child, box } of node)
      if (child >= 0) expect(nodes[child]!.every((c) => within(c.box, box))).toBe(true);
  }
});
