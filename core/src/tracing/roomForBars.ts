import type { Air } from '../room/index.js';
import { mirroredArrivals, sceneOf, traceRays, type HeardRequest, type RayGroup } from './index.js';
import { upright } from './roomsForTest.js';

const OUTLINE = [
  { x: 0, y: 0 },
  { x: 11, y: 0 },
  { x: 11, y: 5 },
  { x: 6, y: 5 },
  { x: 6, y: 9 },
  { x: 0, y: 9 },
];
const SHARES = [0.25, 0.1, 0.08, 0.3, 0.15, 0.4, 0.1, 0.12];
const air: Air = { temperatureC: 20, relativeHumidityPercent: 50 };
/** Long enough for T30 of the room that rings longest here, about 0.9 s. */
export const LENGTH_S = 1.4;

/** An L with unlike walls, a source in one of its arms and a receiver in the other. */
export const REQUEST: HeardRequest = {
  faces: upright(OUTLINE, 4, (f) => ({ absorption: SHARES[f]!, scattering: f % 2 ? 0.4 : 0.15 })),
  source: { position: { x: 9, y: 2, z: 1.5 }, emission: null },
  receiver: { position: { x: 2, y: 7, z: 1.2 }, lateral: { x: 1, y: 0, z: 0 } },
  mirrored: 3,
  air,
};
export const ARRIVALS = mirroredArrivals(REQUEST, LENGTH_S);
const scene = sceneOf(REQUEST.faces);

/** So many groups of rays of a seed. */
export const groupsOf = (seed: number, groups: number, rays: number): RayGroup[] =>
  Array.from({ length: groups }, (_, group) =>
    traceRays(scene, {
      source: REQUEST.source,
      receivers: [REQUEST.receiver],
      rays,
      lengthS: LENGTH_S,
      mirrored: REQUEST.mirrored,
      speed: 343.2,
      seed,
      group,
    }),
  );
