import { describe, expect, it } from 'vitest';
import { BIN_S, evennessOf, sceneOf, SECTORS, traceRays } from './index.js';
import { boxFaces, upright } from './roomsForTest.js';
import {
  asked,
  ell,
  heard,
  one,
  other,
  randomWalk,
  request,
  row,
  SCATTERING_BOXES,
  sum,
} from './raysForTest.js';

// the other boxes, mirrors, and source and receiver in each other's place: `npm run bars`
it('a box that scatters everything dies away as a random walk in it', () => {
  const { traced, wanted, leaks } = randomWalk(SCATTERING_BOXES[1]);
  expect(Math.abs(traced / wanted - 1)).toBeLessThan(0.02);
  expect(leaks).toBe(0);
});

describe('in an L with unlike faces that scatter a part', () => {
  it('no energy is lost: swallowed, and cut below 75 dB, within 0.1 %', () => {
    const { sent, absorbed, escaped, cut } = traceRays(ell, asked(one, other, { rays: 5000, lengthS: 8 }));
    sent.forEach((all, o) => {
      expect(all).toBeCloseTo(4 * Math.PI, 9);
      expect(Math.abs((absorbed[o]! + cut[o]!) / all - 1)).toBeLessThan(1e-3);
      expect(escaped[o]).toBe(0);
      expect(cut[o]! / all).toBeLessThan(1e-3);
    });
  });
  it('the same seed gives the same numbers, another group others', () => {
    const run = (group: number) => traceRays(ell, asked(one, other, { rays: 500, group })).energy;
    expect(run(3)).toEqual(run(3));
    expect(run(4)).not.toEqual(run(3));
  });
});

describe('where it comes from', () => {
  it('in a cube that scatters everything: late from all around, and as much as arrives', () => {
    const scene = sceneOf(boxFaces({ x: 5, y: 5, z: 5 }, 0.1, 1));
    const { directions, energy, bins } = traceRays(
      scene,
      request({ receivers: [heard({ x: 2.5, y: 2.5, z: 2.5 })], rays: 8000, lengthS: 1 }),
    );
    const stretch = (s: number) => Float64Array.from(directions!.slice(s * SECTORS, (s + 1) * SECTORS));
    expect(evennessOf(stretch(2))).toBeGreaterThan(0.9);
    // octaves 500 Hz to 2 kHz from 200 to 500 ms
    const arrived = [3, 4, 5].reduce((s, o) => s + sum(energy.subarray(o * bins + 200, o * bins + 500)), 0);
    expect(sum(stretch(2)) / arrived).toBeCloseTo(1, 9);
  });
  it('with one live wall among dead ones: early from that wall', () => {
    const faces = boxFaces({ x: 6, y: 6, z: 6 }, 0.99, 1);
    const behind = faces.findIndex((f) => f.corners.every((c) => c.x === 6));
    const scene = sceneOf(
      faces.map((f, i) => (i === behind ? { ...f, absorption: f.absorption.map(() => 0.05) } : f)),
    );
    const { directions } = traceRays(
      scene,
      request({ receivers: [heard({ x: 3, y: 3, z: 3 })], rays: 4000, lengthS: 0.3 }),
    );
    const first = Float64Array.from(directions!.slice(0, SECTORS));
    const ahead = first.filter((_, i) => [0, 7].includes(i % 8));
    expect(sum(ahead) / sum(first)).toBeGreaterThan(0.6);
    expect(evennessOf(first)).toBeLessThan(0.5);
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

it('sent the other way round, from the receiver to sources that send to one side, it brings what those send to it, within 0.5 dB', () => {
  const scene = sceneOf(boxFaces({ x: 6, y: 5, z: 3 }, 0.25, 0.3));
  // energy as 1 + cos, so that 1 goes out on the mean; one of them stands in a corner
  const cardioid = (x: number, _y: number, _z: number, out: Float64Array) => out.fill(1 + x);
  const from = [
    { x: 0.3, y: 0.3, z: 0.4 },
    { x: 2, y: 3.5, z: 1.4 },
  ];
  const to = { x: 4.5, y: 1.6, z: 1.2 };
  const back = traceRays(
    scene,
    request({
      source: { position: to, emission: null },
      receivers: from.map((p) => ({ ...heard(p), takes: cardioid })),
      rays: 16_000,
      mirrored: 2,
      lengthS: 0.25,
      isThin: true,
    }),
  );
  from.forEach((position, i) => {
    const there = traceRays(
      scene,
      request({
        source: { position, emission: cardioid },
        receivers: [heard(to)],
        rays: 16_000,
        lengthS: 0.25,
        mirrored: 2,
      }),
    );
    for (const [begin, end] of [
      [0, 80],
      [80, 250],
    ] as const) {
      const part = (group: typeof back, r: number) => sum(row(group, r).subarray(begin, end));
      const apart = 10 * Math.log10(part(back, i) / part(there, 0));
      expect(Math.abs(apart), `source ${i + 1} from ${begin} to ${end} ms`).toBeLessThan(0.5);
    }
  });
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
