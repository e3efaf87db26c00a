// First hits of rays among triangles, against a well-known library on the same scene and core.
import type { Point } from '@pebble-hall/core/geometry';
import { facetsOf, seatsOf } from '@pebble-hall/core/place';
import { seededRandom } from '@pebble-hall/core/signal';
import { sceneOf, Tracer, traceRays, type TracedFace } from '@pebble-hall/core/tracing';
import { SLIP_HALL_AREAS, SLIP_HALL_SHAPE } from '@pebble-hall/stand-ins/slip-hall';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';

const RAYS = 200_000;
const flat = Array.from({ length: 8 }, () => 0.2);

/** A hall of 24 x 13 x 8 m with boxes in it, as triangles. */
export function hallOfBoxes(boxes: number, seed: number): TracedFace[] {
  const random = seededRandom(seed);
  const box = (least: Point, most: Point): TracedFace[] => {
    const p = (i: number) => ({
      x: i & 1 ? most.x : least.x,
      y: i & 2 ? most.y : least.y,
      z: i & 4 ? most.z : least.z,
    });
    return [
      [0, 1, 3, 2],
      [4, 5, 7, 6],
      [0, 1, 5, 4],
      [2, 3, 7, 6],
      [0, 2, 6, 4],
      [1, 3, 7, 5],
    ].flatMap(([a, b, c, d]) =>
      [
        [a!, b!, c!],
        [a!, c!, d!],
      ].map((corners) => ({ corners: corners.map(p), absorption: flat, scattering: flat })),
    );
  };
  const inside = Array.from({ length: boxes }, () => {
    const at = { x: 22 * random.uniform(), y: 11 * random.uniform(), z: 2 * random.uniform() };
    const size = () => 0.3 + 1.2 * random.uniform();
    return box(at, { x: at.x + size(), y: at.y + size(), z: at.z + size() });
  });
  return [...box({ x: 0, y: 0, z: 0 }, { x: 24, y: 13, z: 8 }), ...inside.flat()];
}

function rate(run: (o: Float64Array) => void, rays: Float64Array): number {
  const once = () => {
    const from = performance.now();
    run(rays);
    return performance.now() - from;
  };
  once();
  const times = [once(), once(), once(), once(), once()].sort((a, b) => a - b);
  return RAYS / (times[1]! / 1000);
}

export function benchTracing(): void {
  const random = seededRandom(3);
  const rays = new Float64Array(6 * RAYS);
  for (let i = 0; i < RAYS; i++) {
    const [x, y, z] = [random.normal(), random.normal(), random.normal()];
    const length = Math.hypot(x, y, z);
    rays.set(
      [
        24 * random.uniform(),
        13 * random.uniform(),
        8 * random.uniform(),
        x / length,
        y / length,
        z / length,
      ],
      6 * i,
    );
  }
  for (const boxes of [50, 408]) {
    const faces = hallOfBoxes(boxes, 7);
    const scene = sceneOf(faces);
    let ours = 0;
    const rateOf = (tracer: Tracer) =>
      rate((r) => {
        ours = 0;
        for (let i = 0; i < r.length; i += 6)
          if (tracer.firstHit(r[i]!, r[i + 1]!, r[i + 2]!, r[i + 3]!, r[i + 4]!, r[i + 5]!))
            ours += tracer.distance;
      }, rays);
    const [own, plain] = [rateOf(new Tracer(scene)), rateOf(new Tracer(scene, true))];
    const geometry = new BufferGeometry();
    geometry.setAttribute(
      'position',
      new BufferAttribute(
        Float32Array.from(faces.flatMap((f) => f.corners.flatMap((c) => [c.x, c.y, c.z]))),
        3,
      ),
    );
    const other = new MeshBVH(geometry);
    const ray = new Ray(new Vector3(), new Vector3());
    let theirs = 0;
    const library = rate((r) => {
      theirs = 0;
      for (let i = 0; i < r.length; i += 6) {
        ray.origin.set(r[i]!, r[i + 1]!, r[i + 2]!);
        ray.direction.set(r[i + 3]!, r[i + 4]!, r[i + 5]!);
        theirs += other.raycastFirst(ray, DoubleSide)?.distance ?? 0;
      }
    }, rays);
    console.log(
      `first hits among ${faces.length} triangles: ${(own / 1e6).toFixed(2)} million rays/s, ${(own / library).toFixed(2)} times three-mesh-bvh (bar 5), ${(plain / library).toFixed(2)} times without WebAssembly; mean way ${(ours / RAYS).toFixed(4)} and ${(theirs / RAYS).toFixed(4)} m`,
    );
  }
}

const HALL_RAYS = 20_000;

/** One source and 20 receivers in the Slip Hall, 8 octaves, 2 s. */
export function benchHall(): void {
  const scene = sceneOf(facetsOf(SLIP_HALL_SHAPE));
  const seats = SLIP_HALL_AREAS.flatMap((a) => seatsOf(a, SLIP_HALL_SHAPE));
  const receivers = Array.from({ length: 20 }, (_, i) => ({
    position: seats[Math.floor((i * seats.length) / 20)]!.position,
    lateral: { x: 0, y: 1, z: 0 },
  }));
  const run = (rays: number, count: number) => {
    const from = performance.now();
    const { leaks } = traceRays(scene, {
      source: { position: { x: 2.4, y: 6.5, z: 2 }, emission: null },
      receivers: receivers.slice(0, count),
      rays,
      lengthS: 2,
      mirrored: 4,
      speed: 342,
      seed: 1,
      group: 0,
    });
    if (leaks > 0) console.log(`${leaks} rays got out of the Slip Hall`);
    return (performance.now() - from) / 1000;
  };
  run(500, 20);
  const all = run(HALL_RAYS, 20);
  const [few, half] = [run(HALL_RAYS, 10), run(HALL_RAYS / 2, 20)];
  console.log(
    `the Slip Hall, ${HALL_RAYS} rays, 20 receivers, 8 octaves, one core: ${all.toFixed(1)} s (bar 10 on two); half the receivers ${few.toFixed(1)} s, half the rays ${half.toFixed(1)} s`,
  );
}
