import { describe, expect, it } from 'vitest';
import type { TracedFace } from '../tracing/index.js';
import { boxFaces } from '../tracing/roomsForTest.js';
import { curvedSurfaces, findFocus } from './index.js';

const alike = (value: number) => Array.from({ length: 8 }, () => value);
const LENGTH = 12;
const RADIUS = 5;

/** A tunnel: half a regular polygon of so many sides on a flat floor, along x, its axis in the floor. */
function tunnel(sides: number): TracedFace[] {
  const corners = Array.from({ length: sides + 1 }, (_, k) => {
    const turn = (Math.PI * k) / sides;
    // sides touch the circle in their middle
    const out = RADIUS / Math.cos(Math.PI / (2 * sides));
    return { y: out * Math.cos(turn), z: out * Math.sin(turn) };
  });
  const made = (points: { x: number; y: number; z: number }[]): TracedFace => ({
    corners: points,
    absorption: alike(0.1),
    scattering: alike(0.1),
  });
  const vault = corners.slice(1).map((b, k) => {
    const a = corners[k]!;
    return made([
      { x: 0, ...a },
      { x: LENGTH, ...a },
      { x: LENGTH, ...b },
      { x: 0, ...b },
    ]);
  });
  const [first, last] = [corners[0]!, corners.at(-1)!];
  return [
    ...vault,
    made([
      { x: 0, ...first },
      { x: LENGTH, ...first },
      { x: LENGTH, ...last },
      { x: 0, ...last },
    ]),
    ...[0, LENGTH].map((x) => made(corners.map((c) => ({ x, ...c })))),
  ];
}

const setting = (faces: TracedFace[]) => ({
  faces,
  volume: 400,
  air: { temperatureC: 20, relativeHumidityPercent: 50 },
  lengthS: 1,
  mirrored: 1,
});
const at = (x: number, y: number, z: number) => ({ position: { x, y, z } });
const focusIn = (faces: TracedFace[], from: ReturnType<typeof at>, to: ReturnType<typeof at>) =>
  findFocus(
    setting(faces),
    { ...from, emission: null },
    { ...to, lateral: { x: 0, y: 1, z: 0 } },
    curvedSurfaces(faces),
  );

describe('curved surfaces', () => {
  it('are faces that turn little from one to the next; corners of a box and two slopes of a roof are none', () => {
    expect(curvedSurfaces(tunnel(9))).toEqual([[0, 1, 2, 3, 4, 5, 6, 7, 8]]);
    expect(curvedSurfaces(tunnel(4))).toEqual([]);
    expect(curvedSurfaces(boxFaces({ x: 4, y: 5, z: 3 }, 0.1, 0.1))).toEqual([]);
  });
});

describe('sound that is gathered', () => {
  it('in the axis of a vault all its sides send at once, and gain ten lg of their number', () => {
    // just off the floor, so that the floor itself is not in the way
    const focus = focusIn(tunnel(12), at(3, 0, 1e-3), at(9, 0, 1e-3))!;
    expect(focus.faces).toHaveLength(12);
    expect(focus.arrivals).toBe(12);
    expect(focus.withinS).toBeLessThan(2e-5);
    expect(focus.gainDb).toBeCloseTo(10 * Math.log10(12), 1);
    // there and back over half the way each: 2 sqrt(5^2 + 3^2) against 6 m
    expect(focus.laterS).toBeCloseTo((2 * Math.hypot(5, 3) - 6) / 343.2, 4);
  });

  it('is less off the axis, and none on the same side below the vault or where nothing is curved', () => {
    const axis = focusIn(tunnel(12), at(3, 0, 1e-3), at(9, 0, 1e-3))!;
    const beside = focusIn(tunnel(12), at(3, 0.8, 0.3), at(9, -0.5, 0.6));
    expect(beside?.gainDb ?? 0).toBeLessThan(axis.gainDb);
    expect(focusIn(tunnel(12), at(3, 4, 1.5), at(4, 3.8, 2))).toBeNull();
    expect(focusIn(boxFaces({ x: 8, y: 8, z: 8 }, 0.1, 0.1), at(3, 4, 4), at(5, 4, 4))).toBeNull();
  });
});
