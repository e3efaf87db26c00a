import { expect, it } from 'vitest';
import { polarFromTraces, seenFrom, type TraceAtAngle } from './polarFromTraces.js';

const RATE = 48_000;
/** A click after its way, quieter by 1 / r and by what its angle takes, and an echo 10 ms later. */
function trace(angleDeg: number, gainDb: number, distanceM: number): TraceAtAngle {
  const samples = new Float32Array(16_384);
  const zero = 480;
  const at = zero + Math.round((distanceM / 343) * RATE);
  samples[at] = 10 ** (gainDb / 20) / distanceM;
  samples[at + 480] = 0.8 / distanceM;
  return { impulse: { samples, rate: RATE, zero }, aboutDeg: 0, angleDeg, distanceM, microphone: null };
}

it('takes the direct sound alone, as at 1 m, in thirds that the window can tell apart', () => {
  const [plane] = polarFromTraces([trace(30, -6, 2), trace(0, 0, 1), trace(-60, -20, 3)], 0.008);
  expect(plane!.angleDeg).toEqual([-60, 0, 30]);
  expect(plane!.frequency[0]).toBeGreaterThanOrEqual(250);
  expect(plane!.frequency.at(-1)).toBeCloseTo(19_953, 0);
  const at = (n: number) => plane!.levelDb.map((row) => row[n]! - plane!.levelDb[1]![n]!);
  for (const n of [0, 5, 15]) {
    const [far, axis, near] = at(n);
    expect(axis).toBe(0);
    expect(near).toBeCloseTo(-6, 2);
    expect(far).toBeCloseTo(-20, 2);
  }
});

it('refuses silence, and a distance that is none', () => {
  const silent = trace(0, 0, 1);
  silent.impulse.samples.fill(0);
  expect(() => polarFromTraces([silent], 0.005)).toThrow(/nothing arrives at 0 degrees/);
  expect(() => polarFromTraces([{ ...trace(0, 0, 1), distanceM: 0 }], 0.005)).toThrow(/distance in m/);
});

it('takes off what the microphone reads over the truth', () => {
  const flat = polarFromTraces([trace(0, 0, 1)], 0.008)[0]!;
  const microphone = { frequency: [20, 1000, 20_000], levelDb: [0, 0, 6] };
  const calibrated = polarFromTraces([{ ...trace(0, 0, 1), microphone }], 0.008)[0]!;
  const last = flat.frequency.length - 1;
  expect(flat.levelDb[0]![last]! - calibrated.levelDb[0]![last]!).toBeCloseTo(6, 1);
  expect(flat.levelDb[0]![0]).toBe(calibrated.levelDb[0]![0]);
});

it('tells where a loudspeaker has a point: in which plane, how far off its axis and out of that plane', () => {
  const box = { position: { x: 1, y: 1, z: 2 }, aimDeg: 90, pitchDeg: 0, rollDeg: 0 };
  // it points along y: to its left is towards smaller x
  expect(seenFrom(box, { x: -1, y: 3, z: 2 })).toMatchObject({ aboutDeg: 0, besideDeg: 0 });
  expect(seenFrom(box, { x: -1, y: 3, z: 2 }).angleDeg).toBeCloseTo(45, 9);
  expect(seenFrom(box, { x: 3, y: 3, z: 2 }).angleDeg).toBeCloseTo(-45, 9);
  const low = seenFrom(box, { x: 1, y: 5, z: 0 });
  expect(low).toMatchObject({ aboutDeg: 90 });
  expect(low.angleDeg).toBeCloseTo((-Math.atan(0.5) * 180) / Math.PI, 9);
  expect(low.distanceM).toBeCloseTo(Math.sqrt(20), 9);
  expect(Math.abs(seenFrom(box, { x: 1, y: -1, z: 2 }).angleDeg)).toBeCloseTo(180, 6);
  expect(seenFrom(box, { x: 0, y: 3, z: 2.5 }).besideDeg).toBeGreaterThan(10);
});
