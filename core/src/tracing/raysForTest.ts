import type { Point } from '../geometry/index.js';
import { seededRandom } from '../signal/index.js';
import { BIN_S, sceneOf, traceRays, type RayGroup, type RayRequest } from './index.js';
import { boxFaces, upright } from './roomsForTest.js';

export const C = 343.2;
const ears = { x: 0, y: 1, z: 0 };
export const heard = (position: Point) => ({ position, lateral: ears });
export const request = (over: Partial<RayRequest> & Pick<RayRequest, 'receivers'>): RayRequest => ({
  source: { position: { x: 1.3, y: 1.1, z: 1.4 }, emission: null },
  rays: 20_000,
  lengthS: 1,
  mirrored: 0,
  speed: C,
  seed: 1,
  group: 0,
  ...over,
});
export const row = ({ energy, bins }: RayGroup, receiver: number, octave = 4) =>
  energy.subarray((8 * receiver + octave) * bins, (8 * receiver + octave + 1) * bins);
export const sum = (values: Iterable<number>) => {
  let s = 0;
  for (const v of values) s += v;
  return s;
};

/** Reverberation time from the integrated energy between -5 and -35 dB, least squares, seconds. */
function t30(energy: Float64Array): number {
  const points: [number, number][] = [];
  let left = sum(energy);
  const all = left;
  energy.forEach((e, i) => {
    const db = 10 * Math.log10(left / all);
    if (db <= -5 && db >= -35) points.push([i * BIN_S, db]);
    left -= e;
  });
  const n = points.length;
  const [mx, my] = [sum(points.map((p) => p[0])) / n, sum(points.map((p) => p[1])) / n];
  const slope = sum(points.map(([x, y]) => (x - mx) * (y - my))) / sum(points.map(([x]) => (x - mx) ** 2));
  return -60 / slope;
}

/** Boxes and the variance of free paths over the square of their mean in them, by Kuttruff's Monte Carlo (Room Acoustics, table 5.1). */
export const SCATTERING_BOXES = [
  { size: { x: 5, y: 5, z: 5 }, variance: 0.342, absorption: 0.1 },
  { size: { x: 5, y: 5, z: 5 }, variance: 0.342, absorption: 0.4 },
  { size: { x: 4, y: 4, z: 8 }, variance: 0.356, absorption: 0.3 },
  { size: { x: 3, y: 6, z: 6 }, variance: 0.363, absorption: 0.3 },
  { size: { x: 3, y: 6, z: 15 }, variance: 0.403, absorption: 0.2 },
] as const;

/** Reverberation times of a box that scatters everything: as traced, and of a random walk in it; rays that got out. */
export function randomWalk(room: (typeof SCATTERING_BOXES)[number]) {
  const { x, y, z } = room.size;
  const scene = sceneOf(boxFaces(room.size, room.absorption, 1));
  const random = seededRandom(2);
  const receivers = Array.from({ length: 12 }, () =>
    heard({ x: x * random.uniform(), y: y * random.uniform(), z: z * random.uniform() }),
  );
  const group = traceRays(scene, request({ receivers, rays: 6000, lengthS: 3 }));
  const together = new Float64Array(group.bins);
  receivers.forEach((_, r) => row(group, r).forEach((e, i) => (together[i] = together[i]! + e)));
  const surface = 2 * (x * y + y * z + z * x);
  const log = Math.log(1 - room.absorption);
  const exponent = -log * (1 + (room.variance / 2) * log);
  const wanted = (24 * Math.LN10 * x * y * z) / (C * surface * exponent);
  return { traced: t30(together), wanted, leaks: group.leaks };
}

const outline = [
  { x: 0, y: 0 },
  { x: 7, y: 0 },
  { x: 7, y: 3 },
  { x: 3, y: 3 },
  { x: 3, y: 6 },
  { x: 0, y: 6 },
];
/** An L with unlike faces that scatter a part. */
export const ell = sceneOf(
  upright(outline, 3, (f) => ({
    absorption: [0.3, 0.1, 0.2, 0.5][f % 4]!,
    scattering: [0.3, 0.1, 0.6][f % 3]!,
  })),
);
export const [one, other] = [
  { x: 6.1, y: 1.2, z: 1.5 },
  { x: 1.1, y: 4.9, z: 1.1 },
];
export const asked = (from: Point, to: Point, over: Partial<RayRequest> = {}) =>
  request({
    source: { position: from, emission: null },
    receivers: [heard(to)],
    rays: 25_000,
    lengthS: 0.6,
    ...over,
  });
