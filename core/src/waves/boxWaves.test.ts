import { expect, it } from 'vitest';
import { speedOfSound, type BoxRoom } from '../room/index.js';
import { inverseRealFft } from '../signal/index.js';
import { sceneOf } from '../tracing/index.js';
import { boxFaces } from '../tracing/roomsForTest.js';
import { admittanceOf, boxWaves, roomGrid, waveField } from './index.js';

const size = { x: 5.6, y: 4.1, z: 2.6 };
const air = { temperatureC: 20, relativeHumidityPercent: 50 };
const roomOf = (...walls: number[]): BoxRoom => ({
  size,
  absorption: walls.map((a) => Array<number>(8).fill(a)) as unknown as BoxRoom['absorption'],
  air,
});
const from = { x: 0.7, y: 0.9, z: 1.1 };
const to = { x: 3.6, y: 2.5, z: 1.2 };
const speed = speedOfSound(20);
const asked = { rate: 1000, size: 2048, upToHz: 160, octaves: 1 };
const levelAt = ({ re, im }: { re: Float64Array; im: Float64Array }, k: number) =>
  20 * Math.log10(Math.hypot(re[k]!, im[k]!));

it('is as loud from 20 to 125 Hz as finite differences of the same box, within 1 dB on the mean', () => {
  const walls = [0.2, 0.3, 0.15, 0.25, 0.2, 0.3];
  const [modal] = boxWaves(roomOf(...walls), [{ position: from, delayS: 0, gain: 1 }], to, asked);
  const faces = boxFaces(size, walls, 0);
  const grid = roomGrid(sceneOf(faces), to, 0.14);
  if (typeof grid === 'string') throw new Error(grid);
  const admittance = Float64Array.from(faces, (f) => admittanceOf(f.absorption[0]!));
  const { samples, rate } = waveField(grid, admittance, from, [to], speed, 0.9);
  const errors: number[] = [];
  for (let k = 41; k <= 256; k++) {
    const turn = (2 * Math.PI * k * asked.rate) / asked.size / rate;
    let [re, im] = [0, 0];
    samples[0]!.forEach((v, n) => {
      re += v * Math.cos(turn * n);
      im -= v * Math.sin(turn * n);
    });
    errors.push(Math.abs(levelAt(modal!, k) - 20 * Math.log10(Math.hypot(re, im))));
  }
  expect(errors.reduce((a, b) => a + b) / errors.length).toBeLessThan(1);
});

it('a mode alone dies away by c / V of what its walls admit: once for those it runs along, twice for the others', () => {
  const a = 0.1;
  const { x, y, z } = size;
  const lost = ((speed * admittanceOf(a)) / (2 * x * y * z)) * 2;
  // 6.9 over what is lost in a second; hard but for the two walls across x, or for floor and ceiling
  const cases = [
    { walls: [a, a, 0, 0, 0, 0], wanted: (3 * Math.LN10) / (lost * 2 * y * z) },
    { walls: [0, 0, 0, 0, a, a], wanted: (3 * Math.LN10) / (lost * x * y) },
  ];
  for (const { walls, wanted } of cases) {
    // 30.6 Hz, along x; all higher modes are beyond the band
    const fine = { rate: 80, size: 1024, upToHz: 36, octaves: 1 };
    const corner = { x: 0, y: 0, z: 0 };
    const [spectrum] = boxWaves(roomOf(...walls), [{ position: corner, delayS: 0, gain: 1 }], corner, fine);
    // without what is not the mode: below 26 Hz
    for (let k = 0; k < (26 * 1024) / 80; k++) spectrum!.re[k] = spectrum!.im[k] = 0;
    const samples = inverseRealFft(spectrum!);
    const power = (s: number) => {
      let sum = 0;
      for (let i = Math.round(s * 80); i < (s + 0.4) * 80; i++) sum += samples[i]! ** 2;
      return 10 * Math.log10(sum);
    };
    const perS = (power(0.4) - power(1.2)) / 0.8;
    expect(60 / perS / wanted).toBeGreaterThan(0.93);
    expect(60 / perS / wanted).toBeLessThan(1.07);
  }
});

it('sources add up, later and turned over as asked; source and receiver may change places', () => {
  const room = roomOf(0.2, 0.3, 0.15, 0.25, 0.2, 0.3);
  const [one] = boxWaves(room, [{ position: from, delayS: 0, gain: 1 }], to, asked);
  const [back] = boxWaves(room, [{ position: to, delayS: 0, gain: 1 }], from, asked);
  const [late] = boxWaves(room, [{ position: from, delayS: 0.005, gain: -0.5 }], to, asked);
  const [none] = boxWaves(
    room,
    [
      { position: from, delayS: 0.002, gain: 1 },
      { position: from, delayS: 0.002, gain: -1 },
    ],
    to,
    asked,
  );
  for (const k of [60, 120, 240]) {
    expect(back!.re[k]).toBeCloseTo(one!.re[k]!, 9);
    expect(none!.re[k]).toBeCloseTo(0, 9);
    const turn = (2 * Math.PI * k * asked.rate * 0.005) / asked.size;
    expect(late!.re[k]).toBeCloseTo(-0.5 * (one!.re[k]! * Math.cos(turn) + one!.im[k]! * Math.sin(turn)), 9);
  }
});

it('refuses what it cannot tell', () => {
  const source = [{ position: from, delayS: 0, gain: 1 }];
  expect(() => boxWaves(roomOf(1, 0, 0, 0, 0, 0), source, to, asked)).toThrow(RangeError);
  expect(() => boxWaves(roomOf(0, 0, 0, 0, 0, 0), source, to, { ...asked, upToHz: 600 })).toThrow(RangeError);
  expect(() => boxWaves(roomOf(0, 0, 0, 0, 0, 0), source, to, { ...asked, octaves: 9 })).toThrow(RangeError);
});
