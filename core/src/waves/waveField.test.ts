import { describe, expect, it } from 'vitest';
import { boxModes, shapeModes } from '../room/index.js';
import { realFft } from '../signal/index.js';
import { sceneOf, type TracedFace } from '../tracing/index.js';
import { boxFaces, upright } from '../tracing/roomsForTest.js';
import { admittanceOf, roomGrid, swallowedBy, waveField, type RoomGrid } from './index.js';

const C = 343;
const gridOf = (
  faces: TracedFace[],
  within: { x: number; y: number; z: number },
  stepM: number,
): RoomGrid => {
  const grid = roomGrid(sceneOf(faces), within, stepM);
  if (typeof grid === 'string') throw new Error(grid);
  return grid;
};
const hard = (faces: number) => new Float64Array(faces);

/** Peaks of the spectrum of a response, Hz, each between its neighbours by a parabola over the levels. */
function peaks(samples: Float64Array, rate: number, toHz: number): number[] {
  const size = 1 << 18;
  const windowed = samples.map((v, i) => v * (0.5 + 0.5 * Math.cos((Math.PI * i) / samples.length)));
  const { re, im } = realFft(windowed, size);
  const level = re.map((r, k) => Math.log(Math.hypot(r, im[k]!)));
  const found: number[] = [];
  for (let k = 1; (k * rate) / size < toHz; k++) {
    const [a, b, c] = [level[k - 1]!, level[k]!, level[k + 1]!];
    if (b > a && b > c && b > Math.max(...level.subarray(1, 1 + Math.ceil((toHz * size) / rate))) - 4)
      found.push(((k + (a - c) / (2 * (a - 2 * b + c))) * rate) / size);
  }
  return found;
}

describe('hard rooms ring at their modes', () => {
  it('a box, within half a percent up to 100 Hz', () => {
    const size = { x: 5.1, y: 3.7, z: 2.6 };
    const grid = gridOf(boxFaces(size, 0, 0), { x: 1, y: 1, z: 1 }, 0.2);
    const corner = { x: 0.1, y: 0.1, z: 0.1 };
    const { samples, rate } = waveField(grid, hard(6), corner, [{ x: 5, y: 3.6, z: 2.5 }], C, 2);
    const wanted = boxModes(size, C, 110).map((m) => m.hz);
    const found = peaks(samples[0]!, rate, 108);
    // those that lie apart from others are heard as peaks of their own
    const apart = wanted.filter(
      (hz, i) => hz < 100 && !wanted.some((o, k) => k !== i && Math.abs(o - hz) < 2),
    );
    expect(apart.length).toBeGreaterThan(5);
    for (const hz of apart) expect(Math.min(...found.map((f) => Math.abs(f / hz - 1)))).toBeLessThan(0.005);
  });
  it('an L, within a percent of what exact integrals give', { tags: 'bars' }, () => {
    const outline = [
      { x: 0, y: 0 },
      { x: 6, y: 0 },
      { x: 6, y: 2.4 },
      { x: 2.4, y: 2.4 },
      { x: 2.4, y: 4.8 },
      { x: 0, y: 4.8 },
    ];
    const faces = upright(outline, 2.4, () => ({ absorption: 0, scattering: 0 }));
    const grid = gridOf(faces, { x: 1, y: 1, z: 1 }, 0.2);
    const { samples, rate } = waveField(
      grid,
      hard(faces.length),
      { x: 5.9, y: 0.1, z: 0.1 },
      [
        { x: 0.1, y: 4.7, z: 0.1 },
        { x: 0.1, y: 0.1, z: 0.1 },
      ],
      C,
      3,
    );
    const { list } = shapeModes(outline, 2.4, C, 80);
    const found = samples.flatMap((one) => peaks(one, rate, 80));
    const wanted = list.map((m) => m.hz);
    const apart = wanted.filter(
      (hz, i) => hz < 75 && !wanted.some((o, k) => k !== i && Math.abs(o - hz) < 2),
    );
    expect(apart.length).toBeGreaterThan(2);
    for (const hz of apart) expect(Math.min(...found.map((f) => Math.abs(f / hz - 1)))).toBeLessThan(0.01);
  });
});

describe('walls that swallow', () => {
  it('in a duct with soft ends, waves along it fall by the reflection of each end', () => {
    const [length, admittance] = [8, 0.1];
    const faces = boxFaces({ x: length, y: 0.5, z: 0.5 }, 0, 0);
    const ends = Float64Array.from(faces, (f) =>
      f.corners.every((c) => c.x === 0) || f.corners.every((c) => c.x === length) ? admittance : 0,
    );
    const grid = gridOf(faces, { x: 1, y: 0.25, z: 0.25 }, 0.1);
    const { samples, rate } = waveField(
      grid,
      ends,
      { x: 0.5, y: 0.25, z: 0.25 },
      [{ x: 5, y: 0.25, z: 0.25 }],
      C,
      1.5,
    );
    // the third of its modes, in windows of 0.2 s
    const hz = (3 * C) / (2 * length);
    const level = (fromS: number) => {
      const window = samples[0]!.slice(fromS * rate, (fromS + 0.2) * rate);
      let [re, im] = [0, 0];
      window.forEach((v, n) => {
        const share = 0.5 - 0.5 * Math.cos((2 * Math.PI * (n + 0.5)) / window.length);
        re += share * v * Math.cos((2 * Math.PI * hz * n) / rate);
        im -= share * v * Math.sin((2 * Math.PI * hz * n) / rate);
      });
      return 20 * Math.log10(Math.hypot(re, im));
    };
    const wantedDb = (20 * Math.log10((1 - admittance) / (1 + admittance)) * C * 0.4) / length;
    expect(Math.abs(level(0.6) - level(0.2) - wantedDb)).toBeLessThan(0.5);
  });
  it('rooms of an admittance swallow as its theory says, and back', () => {
    // Kuttruff, Room Acoustics: the most is 0.951 at an impedance of 1.567
    expect(swallowedBy(1 / 1.567)).toBeCloseTo(0.951, 3);
    for (const a of [0.01, 0.1, 0.3, 0.6, 0.9]) expect(swallowedBy(admittanceOf(a))).toBeCloseTo(a, 6);
    expect(admittanceOf(0)).toBeCloseTo(0, 6);
    expect(admittanceOf(1)).toBeLessThan(0.64);
  });
});

it('what arrives first is as loud as in the open: 1 at 1 m, half at 2 m', () => {
  const faces = boxFaces({ x: 9, y: 9, z: 9 }, 0, 0);
  const grid = gridOf(faces, { x: 4, y: 4, z: 4 }, 0.15);
  const source = { x: 4.5, y: 4.5, z: 4.5 };
  const { samples, rate } = waveField(
    grid,
    hard(6),
    source,
    [
      { x: 5.5, y: 4.5, z: 4.5 },
      { x: 4.5, y: 6.5, z: 4.5 },
    ],
    C,
    0.017,
  );
  // up to before anything comes back
  const at = (of: Float64Array, hz: number) => {
    let [re, im] = [0, 0];
    of.subarray(0, Math.floor(0.016 * rate)).forEach((v, n) => {
      re += v * Math.cos((2 * Math.PI * hz * n) / rate);
      im -= v * Math.sin((2 * Math.PI * hz * n) / rate);
    });
    return Math.hypot(re, im);
  };
  for (const hz of [100, 160]) {
    expect(at(samples[0]!, hz)).toBeCloseTo(1, 1);
    expect(at(samples[1]!, hz)).toBeCloseTo(0.5, 1);
  }
});

describe('cells of a room', () => {
  it('fill it, and leave out what a wall keeps apart', () => {
    const grid = gridOf(boxFaces({ x: 4, y: 3, z: 2 }, 0, 0), { x: 1, y: 1, z: 1 }, 0.2);
    expect(grid.cells).toBe(20 * 15 * 10);
    expect(grid.steps.map((s) => Number(s.toFixed(6)))).toEqual([0.2, 0.2, 0.2]);
  });
  it('a slanted face swallows by its own area, not by its stairs', () => {
    const [w, h] = [4, 3];
    // a prism: a floor of 4 x 4, upright behind, a roof that falls from 3 m to the floor
    const corner = (x: number, y: number, z: number) => ({ x, y, z });
    const none = {
      absorption: Array.from({ length: 8 }, () => 0),
      scattering: Array.from({ length: 8 }, () => 0),
    };
    const faces: TracedFace[] = [
      [corner(0, 0, 0), corner(w, 0, 0), corner(w, w, 0), corner(0, w, 0)],
      [corner(0, 0, 0), corner(0, w, 0), corner(0, w, h), corner(0, 0, h)],
      [corner(0, 0, h), corner(0, w, h), corner(w, w, 0), corner(w, 0, 0)],
      [corner(0, 0, 0), corner(w, 0, 0), corner(0, 0, h)],
      [corner(0, w, 0), corner(w, w, 0), corner(0, w, h)],
    ].map((corners) => ({ corners, ...none }));
    const grid = gridOf(faces, { x: 0.5, y: 2, z: 0.5 }, 0.1);
    const volume = grid.cells * grid.steps.reduce((a, b) => a * b, 1);
    expect(volume).toBeCloseTo((w * h * w) / 2, 0);
    // stairs of 4 and 3 stand for a slope of 5
    expect(grid.share[2]).toBeCloseTo(5 / 7, 1);
    expect(grid.share[0]).toBeCloseTo(1, 1);
  });
  it('say why there are none', () => {
    const box = boxFaces({ x: 4, y: 3, z: 2 }, 0, 0);
    expect(roomGrid(sceneOf(box.slice(0, 5)), { x: 1, y: 1, z: 1 }, 0.2)).toBe('not closed');
    expect(roomGrid(sceneOf(box), { x: 9, y: 1, z: 1 }, 0.2)).toBe('outside');
    expect(roomGrid(sceneOf(box), { x: 1, y: 1, z: 1 }, 0.005)).toBe('too large');
  });
});
