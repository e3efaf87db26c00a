import { describe, expect, it } from 'vitest';
import { OCTAVES } from '../room/index.js';
import { sceneOf } from '../tracing/index.js';
import { boxFaces } from '../tracing/roomsForTest.js';
import { roomGrid, waveField } from '../waves/index.js';
import { gridOfRun, lowsAt, lowsOf, lowsPlan, type LowsHeard, type RoomRun } from './index.js';

const C = 343.2;
const SIZE = { x: 5.2, y: 4.1, z: 2.6 };
const faces = boxFaces(SIZE, 0.25, 0.1).map((f, i) => ({ ...f, name: `F${i}`, corners: [...f.corners] }));
const run: RoomRun = {
  id: 'r',
  name: 'R',
  madeAt: 0,
  faces,
  volume: SIZE.x * SIZE.y * SIZE.z,
  air: { temperatureC: 20, relativeHumidityPercent: 50 },
  sources: [{ id: 's', name: 'S', kind: 'omnidirectional', position: { x: 1.1, y: 1.3, z: 1.2 } }],
  receivers: [{ id: 'r', name: 'R', position: { x: 3.6, y: 2.9, z: 1.1 }, azimuthDeg: 0 }],
  mirrored: 2,
  lengthS: 0.4,
  raysPerGroup: 100,
  groups: 4,
  seed: 1,
  noiseLevelsDb: null,
  tracedBy: 'browser',
  isHeld: false,
};
const scene = sceneOf(faces);
const into = { rate: 48_000, size: 1 << 16, zero: 480, speed: C };

describe('the lows of a run', () => {
  const plan = lowsPlan(run, scene);
  const grid = gridOfRun(run, scene, plan);
  if (typeof grid === 'string') throw new Error(grid);
  const heard = lowsAt(run, plan, grid, run.receivers[0]!.position);

  it('are waves up to where modes overlap, in cells small enough for it', () => {
    // 2000 sqrt(T / V), T after Eyring with a quarter swallowed: 0.34 s in 55 cubic metres
    expect(plan.upToHz).toBeGreaterThan(150);
    expect(plan.upToHz).toBeLessThan(165);
    expect((2 * Math.PI * 1.2 * plan.upToHz * plan.stepM) / C).toBeCloseTo(0.42, 2);
    expect(heard.octaves).toHaveLength(3);
  });
  it('begin with the direct sound, which is as loud as in the open', () => {
    const directS = Math.hypot(2.5, 1.6, 0.1) / C;
    const [lows] = lowsOf(heard, 'one ear', 0, {
      ...into,
      directS,
      sources: [{ powerDb: OCTAVES.map(() => 0), delayS: 0 }],
    });
    // two sources of half the power each, one of them a turn of 100 Hz later: what they do together at 50 and at 100 Hz
    const both = lowsOf({ ...heard, octaves: heard.octaves.map(([one]) => [one!, one!]) }, 'one ear', 0, {
      ...into,
      directS,
      sources: [0, 0.01].map((delayS) => ({ powerDb: OCTAVES.map(() => -6.0206), delayS })),
    })[0]!;
    const at = (of: typeof both, hz: number) => {
      const k = Math.round((hz * into.size) / into.rate);
      return Math.hypot(of.octaves[1]!.re[k]!, of.octaves[1]!.im[k]!);
    };
    const [near100, near50] = [100, 50].map(
      (hz) => (Math.round((hz * into.size) / into.rate) * into.rate) / into.size,
    );
    for (const hz of [near100!, near50!])
      expect(at(both, hz) / at(lows!, hz)).toBeCloseTo(Math.abs(Math.cos(Math.PI * hz * 0.01)), 3);
  });
});

it('ambisonics hear where a plane wave comes from, ears on both sides of it alike', () => {
  const [length, wide] = [10, 0.5];
  const duct = boxFaces({ x: length, y: wide, z: wide }, 0, 0);
  const ends = Float64Array.from(duct, (f) =>
    f.corners.every((c) => c.x === 0) || f.corners.every((c) => c.x === length) ? 1 : 0,
  );
  const grid = roomGrid(sceneOf(duct), { x: 8, y: 0.25, z: 0.25 }, 0.1);
  if (typeof grid === 'string') throw new Error(grid);
  const middle = { x: 3, y: 0.25, z: 0.25 };
  const beside = (['x', 'y', 'z'] as const).flatMap((axis) =>
    [-0.1, 0.1].map((by) => ({ ...middle, [axis]: middle[axis] + by })),
  );
  const { samples, rate } = waveField(grid, ends, { x: 8, y: 0.25, z: 0.25 }, [middle, ...beside], C, 0.7);
  const heard: LowsHeard = {
    upToHz: 150,
    stepM: 0.1,
    rate,
    cells: grid.cells,
    octaves: [[samples]],
    apartM: [0.2, 0.2, 0.2],
  };
  const told = { ...into, directS: 5 / C, sources: [{ powerDb: OCTAVES.map(() => 0), delayS: 0 }] };
  const value = (of: { octaves: readonly { re: Float64Array; im: Float64Array }[] }) => {
    const k = Math.round((90 * into.size) / into.rate);
    return { re: of.octaves[0]!.re[k]!, im: of.octaves[0]!.im[k]! };
  };
  const [w, y, z, x] = lowsOf(heard, 'ambisonics', 0, told).map(value);
  const size = Math.hypot(w!.re, w!.im);
  // in cells of a fortieth of a wave the far end sends 4 % back
  expect(Math.hypot(x!.re - w!.re, x!.im - w!.im) / size).toBeLessThan(0.1);
  expect(Math.hypot(y!.re, y!.im) / size).toBeLessThan(0.02);
  expect(Math.hypot(z!.re, z!.im) / size).toBeLessThan(0.02);
  // who looks to the left has it on the right
  const [, right] = lowsOf(heard, 'ambisonics', Math.PI / 2, told).map(value);
  expect(Math.hypot(right!.re + w!.re, right!.im + w!.im) / size).toBeLessThan(0.1);
  const [left, other] = lowsOf(heard, 'two ears', 0, told).map(value);
  expect(Math.hypot(left!.re, left!.im) / Math.hypot(other!.re, other!.im)).toBeCloseTo(1, 2);
});
