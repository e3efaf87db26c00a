// Receivers are balls for what comes as from a mirror: no ray goes through a point.
import type { Point } from '../geometry/index.js';
import type { Tracer } from './firstHit.js';
import type { Scene } from './scene.js';

/** A receiver is a ball of this radius for what comes as from a mirror, and smaller where a face is near, metres. */
const BALL_M = { usual: 0.4, least: 0.05, most: 1.5, share: 0.06 };

/** The larger a room the fewer rays come near, so balls grow with it. */
export function usualRadius({ least, most }: Scene): number {
  const size = Math.cbrt((most.x - least.x) * (most.y - least.y) * (most.z - least.z));
  return Math.min(BALL_M.most, Math.max(BALL_M.usual, BALL_M.share * size));
}

/** Points of a ball that are looked at, to see how much of it is in the room. */
const LOOKED_AT = 2000;

/**
 * The share of a ball that its middle sees. Sources that stand close to walls, which rays are sent to the other way round, would have balls that
 * hardly any ray goes through, if no face were to go through them.
 */
export function freeShare(tracer: Tracer, { x, y, z }: Point, radius: number): number {
  let free = 0;
  for (let i = 0; i < LOOKED_AT; i++) {
    // evenly: by volume along the radius, by the golden angle around
    const r = radius * Math.cbrt(((i * Math.SQRT2) % 1) + 0.5 / LOOKED_AT);
    const height = 1 - (2 * i + 1) / LOOKED_AT;
    const around = i * Math.PI * (3 - Math.sqrt(5));
    const wide = Math.sqrt(1 - height * height);
    const to = [x + r * wide * Math.cos(around), y + r * wide * Math.sin(around), z + r * height] as const;
    if (tracer.isFree(x, y, z, ...to)) free++;
  }
  return Math.max(1, free) / LOOKED_AT;
}

/** The ball around a receiver: no face goes through it, as far as that is possible. */
export function ballRadius(scene: Scene, { x, y, z }: Point): number {
  const { triangles } = scene;
  let nearest = usualRadius(scene);
  for (let t = 0; t < triangles.length; t += 12) {
    const off = Math.abs(
      triangles[t]! * x + triangles[t + 1]! * y + triangles[t + 2]! * z - triangles[t + 3]!,
    );
    if (off >= nearest) continue;
    // beside the triangle it may be further away: by the nearest point of its plane and a generous rim
    const [u, v] = [4, 8].map(
      (k) =>
        triangles[t + k]! * x + triangles[t + k + 1]! * y + triangles[t + k + 2]! * z + triangles[t + k + 3]!,
    ) as [number, number];
    if (u > -0.2 && v > -0.2 && u + v < 1.2) nearest = off;
  }
  return Math.max(BALL_M.least, nearest);
}
