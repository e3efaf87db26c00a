import { describe, expect, it } from 'vitest';
import type { Point } from '../geometry/index.js';
import { visitImages, type BoxRoom } from '../room/index.js';
import { seededRandom } from '../signal/index.js';
import { BIN_S, sceneOf, traceRays, type RayGroup, type RayRequest } from './index.js';
import { boxFaces, upright } from './roomsForTest.js';

const C = 343.2;
const ears = { x: 0, y: 1, z: 0 };
const heard = (position: Point) => ({ position, lateral: ears });
const request = (over: Partial<RayRequest> & Pick<RayRequest, 'receivers'>): RayRequest => ({
  source: { position: { x: 1.3, y: 1.1, z: 1.4 }, emission: null },
  rays: 20_000,
  lengthS: 1,
  mirrored: 0,
  speed: C,
  seed: 1,
  group: 0,
  ...over,
});
const row = ({ energy, bins }: RayGroup, receiver: number, octave = 4) =>
  energy.subarray((8 * receiver + octave) * bins, (8 * receiver + octave + 1) * bins);
const sum = (values: Iterable<number>) => {
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

describe('a box that scatters everything', () => {
  // variance of free paths over the square of their mean, by Kuttruff's Monte Carlo (Room Acoustics, table 5.1)
  it.each([
    { size: { x: 5, y: 5, z: 5 }, variance: 0.342, absorption: 0.1 },
    { size: { x: 5, y: 5, z: 5 }, variance: 0.342, absorption: 0.4 },
    { size: { x: 4, y: 4, z: 8 }, variance: 0.356, absorption: 0.3 },
    { size: { x: 3, y: 6, z: 6 }, variance: 0.363, absorption: 0.3 },
    { size: { x: 3, y: 6, z: 15 }, variance: 0.403, absorption: 0.2 },
  ])('of $size.x x $size.y x $size.z m dies away as a random walk in it ($absorption)', (room) => {
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
    expect(Math.abs(t30(together) / wanted - 1)).toBeLessThan(0.02);
    expect(group.leaks).toBe(0);
  });

  it('holds as much energy as is swallowed by and by: 16 pi (1 - a) / A on the mean over the room', () => {
    const scene = sceneOf(boxFaces({ x: 5, y: 4, z: 3 }, 0.2, 1));
    const random = seededRandom(5);
    const receivers = Array.from({ length: 80 }, () =>
      heard({ x: 5 * random.uniform(), y: 4 * random.uniform(), z: 3 * random.uniform() }),
    );
    const group = traceRays(scene, request({ receivers, rays: 2000 }));
    const mean = sum(receivers.map((_, r) => sum(row(group, r)))) / receivers.length;
    // diffuse-field theory: exact only where every face swallows as it would in a diffuse field
    expect(Math.abs(10 * Math.log10(mean / ((16 * Math.PI * 0.8) / (94 * 0.2))))).toBeLessThan(0.3);
  });
});

it('a box of mirrors: what comes after the known orders is what the images tell, window by window', () => {
  const size = { x: 7, y: 5, z: 3.4 };
  const absorption = [0.1, 0.3, 0.15, 0.2, 0.4, 0.25];
  const source = { x: 1.3, y: 1.1, z: 1.4 };
  const position = { x: 5.1, y: 3.2, z: 1.7 };
  const mirrored = 3;
  const group = traceRays(
    sceneOf(boxFaces(size, absorption, 0)),
    request({ receivers: [heard(position)], rays: 120_000, lengthS: 0.3, mirrored }),
  );
  const box: BoxRoom = {
    size,
    absorption: absorption.map((a) => Array.from({ length: 8 }, () => a)) as unknown as BoxRoom['absorption'],
    air: { temperatureC: 20, relativeHumidityPercent: 50 },
  };
  const direct = Math.hypot(position.x - source.x, position.y - source.y, position.z - source.z);
  const windows = [0, 0.03, 0.06, 0.1, 0.2].map((from, i, all) => ({ from, to: all[i + 1] ?? 0.3 }));
  const wanted = windows.map(() => 0);
  visitImages(box, source, position, 0.32 + direct / C, ({ distance, hits }) => {
    if (hits.reduce((a, b) => a + b) <= mirrored) return;
    const later = (distance - direct) / C;
    const at = windows.findIndex((w) => later >= w.from && later < w.to);
    if (at < 0) return;
    wanted[at]! += hits.reduce((e, n, wall) => e * (1 - absorption[wall]!) ** n, 1) / distance ** 2;
  });
  const energy = row(group, 0);
  windows.forEach(({ from, to }, i) => {
    const got = sum(energy.subarray(Math.round(from / BIN_S), Math.round(to / BIN_S)));
    expect(Math.abs(10 * Math.log10(got / wanted[i]!))).toBeLessThan(0.35);
  });
});

describe('in an L with unlike faces that scatter a part', () => {
  const outline = [
    { x: 0, y: 0 },
    { x: 7, y: 0 },
    { x: 7, y: 3 },
    { x: 3, y: 3 },
    { x: 3, y: 6 },
    { x: 0, y: 6 },
  ];
  const scene = sceneOf(
    upright(outline, 3, (f) => ({
      absorption: [0.3, 0.1, 0.2, 0.5][f % 4]!,
      scattering: [0.3, 0.1, 0.6][f % 3]!,
    })),
  );
  const [one, other] = [
    { x: 6.1, y: 1.2, z: 1.5 },
    { x: 1.1, y: 4.9, z: 1.1 },
  ];
  const asked = (from: Point, to: Point, over: Partial<RayRequest> = {}) =>
    request({
      source: { position: from, emission: null },
      receivers: [heard(to)],
      rays: 25_000,
      lengthS: 0.6,
      ...over,
    });
  it('source and receiver may change places', () => {
    const there = sum(row(traceRays(scene, asked(one, other)), 0));
    const back = sum(row(traceRays(scene, asked(other, one)), 0));
    expect(Math.abs(10 * Math.log10(there / back))).toBeLessThan(0.2);
  });
  it('no energy is lost: swallowed, and cut below 75 dB, within 0.1 %', () => {
    const { sent, absorbed, escaped, cut } = traceRays(scene, asked(one, other, { rays: 5000, lengthS: 8 }));
    sent.forEach((all, o) => {
      expect(all).toBeCloseTo(4 * Math.PI, 9);
      expect(Math.abs((absorbed[o]! + cut[o]!) / all - 1)).toBeLessThan(1e-3);
      expect(escaped[o]).toBe(0);
      expect(cut[o]! / all).toBeLessThan(1e-3);
    });
  });
  it('the same seed gives the same numbers, another group others', () => {
    const run = (group: number) => traceRays(scene, asked(one, other, { rays: 500, group })).energy;
    expect(run(3)).toEqual(run(3));
    expect(run(4)).not.toEqual(run(3));
  });
});

it('two rooms through a door: the small live one behind it makes the decay bend', () => {
  // a dead room of 6 x 5 m and a live one of 4 x 5 m, 1 m of opening in the wall between them
  const outline = [
    { x: 0, y: 0 },
    { x: 6, y: 0 },
    { x: 6, y: 2 },
    { x: 6.2, y: 2 },
    { x: 6.2, y: 0 },
    { x: 10.2, y: 0 },
    { x: 10.2, y: 5 },
    { x: 6.2, y: 5 },
    { x: 6.2, y: 3 },
    { x: 6, y: 3 },
    { x: 6, y: 5 },
    { x: 0, y: 5 },
  ];
  // floor and ceiling are one: their absorption is that of the live room, walls of the dead one swallow
  const scene = sceneOf(
    upright(outline, 3, (f) => ({
      absorption: f >= 2 && (f - 2 === 0 || f - 2 >= 10) ? 0.7 : 0.03,
      scattering: 0.5,
    })),
  );
  const { energy, bins } = traceRays(
    scene,
    request({ receivers: [heard({ x: 3, y: 3, z: 1.2 })], rays: 15_000, lengthS: 2 }),
  );
  const late = energy.subarray(4 * bins, 5 * bins);
  const slope = (from: number, to: number) => {
    const level = (at: number) => 10 * Math.log10(sum(late.subarray(at, at + 100)));
    return (level(from) - level(to)) / ((to - from) * BIN_S);
  };
  // dB per second: early, the dead room's; later, the live room's that leaks back
  expect(slope(0, 200) / slope(1200, 1700)).toBeGreaterThan(1.5);
});

it('a room with a hole tells how many rays got out, and where', () => {
  const scene = sceneOf(boxFaces({ x: 4, y: 4, z: 4 }, 0.2, 0.5).slice(0, 5));
  const { leaks, leakAt, escaped, sent } = traceRays(
    scene,
    request({ receivers: [heard({ x: 3, y: 3, z: 1 })], rays: 2000 }),
  );
  expect(leaks).toBeGreaterThan(300);
  expect(leakAt).not.toBeNull();
  expect(escaped[0]! / sent[0]!).toBeGreaterThan(0.1);
});

it('refuses what it cannot trace', () => {
  const scene = sceneOf(boxFaces({ x: 4, y: 4, z: 4 }, 0.2, 0.5));
  const good = request({ receivers: [heard({ x: 3, y: 3, z: 1 })] });
  for (const bad of [
    { rays: 0 },
    { receivers: [] },
    { lengthS: NaN },
    { speed: 0 },
    { source: { position: { x: NaN, y: 0, z: 0 }, emission: null } },
  ])
    expect(() => traceRays(scene, { ...good, ...bad })).toThrow(RangeError);
});
