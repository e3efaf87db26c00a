import type { Point } from '../geometry/index.js';
import { describe, expect, it } from 'vitest';
import { binFrequencies, powerOf, realFft } from '../signal/index.js';
import { findArrival } from '../measure/index.js';
import {
  beamGain,
  boxImpulse,
  directivityFactor,
  eyringTime,
  speedOfSound,
  type BoxRoom,
  type LoudspeakerModel,
} from './index.js';

const flat = (a: number) => new Array<number>(8).fill(a);
const box = (a: number, size: Point = { x: 5.6, y: 4.1, z: 2.6 }): BoxRoom => ({
  size,
  absorption: [flat(a), flat(a), flat(a), flat(a), flat(a), flat(a)],
  air: { temperatureC: 20, relativeHumidityPercent: 50 },
});
const model: LoudspeakerModel = {
  name: 'test',
  low: { frequency: 20, order: 1 },
  high: { frequency: 22000, order: 1 },
  resonances: [],
  levelDb: 0,
  beamFrequency: 1e9,
  narrowest: 1,
  distortion: { second: 0, third: 0 },
};
const options = { rate: 48000, size: 65536, seed: 3 };
const source = { model, position: { x: 0.6, y: 0.7, z: 1.1 }, aim: { x: 1, y: 0, z: 0 } };

describe('boxImpulse', () => {
  it('brings the direct sound at distance over speed, as loud as 1/r', () => {
    const receiver: Point = { x: 3.6, y: 2.05, z: 1.2 };
    const samples = boxImpulse(box(0.9), source, receiver, options);
    const distance = Math.hypot(3, 1.35, 0.1);
    const arrival = findArrival({ samples, rate: 48000, zero: 0 })!;
    expect(Math.abs(arrival.peakS - distance / speedOfSound(20))).toBeLessThan(1 / 48000);
  });

  it('decays as Eyring says in a diffuse room, within 10 %', () => {
    // proportions and absorption that mix well; images up to 0.1 s, diffuse tail after it
    const room = box(0.25);
    const samples = boxImpulse(room, source, { x: 3.6, y: 2.05, z: 1.2 }, options);
    const energy = new Float64Array(samples.length + 1);
    for (let i = samples.length - 1; i >= 0; i--) energy[i] = energy[i + 1]! + samples[i]! ** 2;
    const level = (i: number) => 10 * Math.log10(energy[i]! / energy[0]!);
    const at = (db: number) =>
      Array.from({ length: samples.length }, (_, i) => i).find((i) => level(i) < db)! / 48000;
    const decay = 2 * (at(-35) - at(-5));
    expect(Math.abs(decay / eyringTime(room)[5]! - 1)).toBeLessThan(0.1);
  });

  it('rings at the first axial mode of its length', () => {
    const room = box(0.03, { x: 5.6, y: 1.5, z: 1.3 });
    const corner = { ...source, position: { x: 0.05, y: 0.05, z: 0.05 } };
    const power = powerOf(
      realFft(boxImpulse(room, corner, { x: 5.5, y: 1.4, z: 1.2 }, { ...options, seed: 1 })),
    );
    const f = binFrequencies(65536, 48000);
    let top = 20;
    for (let k = 20; f[k]! < 50; k++) if (power[k]! > power[top]!) top = k;
    expect(Math.abs(f[top]! - speedOfSound(20) / (2 * 5.6))).toBeLessThan(1);
  });

  it('repeats with its seed', () => {
    const receiver: Point = { x: 3, y: 2, z: 1 };
    const a = boxImpulse(box(0.3), source, receiver, { ...options, size: 16384 });
    expect(boxImpulse(box(0.3), source, receiver, { ...options, size: 16384 })).toEqual(a);
    expect(boxImpulse(box(0.3), source, receiver, { ...options, size: 16384, seed: 4 })).not.toEqual(a);
  });
});

it('has the directivity factor that integrating its beam gives', () => {
  for (const n of [0, 0.5, 1, 3]) {
    let sum = 0;
    const steps = 20000;
    for (let i = 0; i < steps; i++) {
      const angle = ((i + 0.5) / steps) * Math.PI;
      sum += beamGain(n, Math.cos(angle)) ** 2 * Math.sin(angle) * (Math.PI / steps) * 0.5;
    }
    expect(1 / sum).toBeCloseTo(directivityFactor(n), 4);
  }
});
