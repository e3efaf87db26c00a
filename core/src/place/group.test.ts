import { describe, expect, it } from 'vitest';
import type { Point } from '../geometry/index.js';
import { boxesOf, nearestM, type Group, type Grouped } from './index.js';

const placed = (group: Group | null, over: Partial<Grouped> = {}): Grouped => ({
  position: { x: 4, y: 3, z: 5 },
  aimDeg: 0,
  pitchDeg: 0,
  rollDeg: 0,
  group,
  ...over,
});
const round = (v: number) => Math.round(1e6 * v) / 1e6 + 0;
const at = (grouped: Grouped) =>
  boxesOf(grouped).map(({ position: p }) => [round(p.x), round(p.y), round(p.z)]);
const aims = (grouped: Grouped) => boxesOf(grouped).map(({ aim: a }) => [round(a.x), round(a.y), round(a.z)]);
const mean = (points: number[][]) =>
  [0, 1, 2].map((k) => points.reduce((s, p) => s + p[k]!, 0) / points.length);

it('one loudspeaker is one box in its place, as it points', () => {
  expect(at(placed(null))).toEqual([[4, 3, 5]]);
  expect(aims(placed(null, { aimDeg: 180, pitchDeg: -30 }))).toEqual([
    [round(-Math.cos(Math.PI / 6)), 0, -0.5],
  ]);
});

describe('a line', () => {
  it('without splay hangs straight, its middle in the centre', () => {
    const line = placed({ kind: 'line', spacingM: 0.4, splayDeg: [0, 0] });
    expect(at(line)).toEqual([
      [4, 3, 5.4],
      [4, 3, 5],
      [4, 3, 4.6],
    ]);
    expect(aims(line).every((a) => a[0] === 1)).toBe(true);
  });

  it('with splay: neighbours differ by it, the whole points as the group does', () => {
    const line = placed({ kind: 'line', spacingM: 0.4, splayDeg: [2, 4, 8] }, { pitchDeg: -10 });
    const pitches = aims(line).map((a) => (Math.asin(a[2]!) * 180) / Math.PI);
    expect(pitches[0]! - pitches[1]!).toBeCloseTo(2, 4);
    expect(pitches[1]! - pitches[2]!).toBeCloseTo(4, 4);
    expect(pitches[2]! - pitches[3]!).toBeCloseTo(8, 4);
    expect(pitches.reduce((a, b) => a + b) / 4).toBeCloseTo(-10, 4);
    mean(at(line)).forEach((v, k) => expect(v).toBeCloseTo([4, 3, 5][k]!, 5));
    // boxes that are turned by a stand on two half ways: neighbours are 2 * 0.2 * cos(a / 2) apart
    const [a, b] = at(line);
    const gap = Math.hypot(a![0]! - b![0]!, a![1]! - b![1]!, a![2]! - b![2]!);
    expect(gap).toBeCloseTo(0.4 * Math.cos(Math.PI / 180), 5);
    // the lower ones lie further back, as a hang that curves does
    expect(at(line)[3]![0]!).toBeLessThan(at(line)[1]![0]!);
  });
});

it('an arc points outward from one middle', () => {
  const arc = placed({ kind: 'arc', count: 3, radiusM: 2, spanDeg: 90 });
  const [left, middle, right] = boxesOf(arc);
  expect(middle!.position).toEqual({ x: 4, y: 3, z: 5 });
  for (const b of [left!, middle!, right!]) {
    // the middle of the circle lies 2 m behind the centre
    expect(Math.hypot(b.position.x - 2, b.position.y - 3)).toBeCloseTo(2, 9);
    expect(b.aim.x).toBeCloseTo((b.position.x - 2) / 2, 9);
    expect(b.aim.y).toBeCloseTo((b.position.y - 3) / 2, 9);
  }
  expect(left!.position.y).toBeGreaterThan(3); // looking along x, the left is where y is great
});

it('a gradient pair: the rear box is later and inverted', () => {
  const pair = boxesOf(placed({ kind: 'gradient', spacingM: 0.9, rearDelayMs: 2.6 }, { aimDeg: 90 }));
  expect(pair.map((b) => [round(b.position.y), b.delayMs, b.inverted])).toEqual([
    [3.45, 0, false],
    [2.55, 2.6, true],
  ]);
});

it('end-fire: all arrive together ahead of it', () => {
  const c = 343;
  const fire = placed({ kind: 'end-fire', count: 4, spacingM: 1.2, stepMs: 1200 / c });
  const ahead = { x: 100, y: 3, z: 5 };
  const ways = boxesOf(fire).map((b) => 100 - b.position.x + (b.delayMs / 1000) * c);
  for (const way of ways) expect(way).toBeCloseTo(ways[0]!, 9);
  expect(nearestM(fire, ahead, c)).toBeCloseTo(ways[0]!, 9);
});

it('a row lies across, from its left; a stack stands; free boxes are where they were put', () => {
  expect(at(placed({ kind: 'row', count: 2, spacingM: 3 }))).toEqual([
    [4, 4.5, 5],
    [4, 1.5, 5],
  ]);
  expect(at(placed({ kind: 'stack', count: 2, spacingM: 0.6 }))).toEqual([
    [4, 3, 4.7],
    [4, 3, 5.3],
  ]);
  const box = { ahead: 1, left: 2, up: 0.5, yawDeg: 90, pitchDeg: 0, delayMs: 1, inverted: false };
  const free = placed({ kind: 'free', boxes: [box] }, { aimDeg: 180 });
  expect(at(free)).toEqual([[3, 1, 5.5]]);
  expect(aims(free)).toEqual([[0, -1, 0]]);
});

it('every box has axes of its own: square to each other, ahead where it points, turned with the group', () => {
  const line: Group = { kind: 'line', spacingM: 0.3, splayDeg: [4, 6] };
  for (const { aim, axes } of boxesOf({
    position: { x: 0, y: 0, z: 5 },
    aimDeg: 30,
    pitchDeg: -5,
    rollDeg: 20,
    group: line,
  })) {
    expect(axes.ahead).toEqual(aim);
    const dot = (a: Point, b: Point) => a.x * b.x + a.y * b.y + a.z * b.z;
    for (const [a, b] of [
      [axes.ahead, axes.left],
      [axes.left, axes.up],
      [axes.up, axes.ahead],
    ] as const)
      expect(dot(a, b)).toBeCloseTo(0, 12);
    for (const a of [axes.ahead, axes.left, axes.up]) expect(dot(a, a)).toBeCloseTo(1, 12);
  }
});
