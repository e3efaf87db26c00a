import { expect, it } from 'vitest';
import { facetArea, facetsOf, plainFace, rectangle, shapeVolume, type Shape } from '../place/index.js';
import { moreThan } from './facetImpulse.js';
import {
  airAbsorption,
  boxImpulse,
  eyringTime,
  facetEyringTime,
  facetImpulse,
  facetOrder,
  speedOfSound,
  type BoxRoom,
  type FacetRoom,
  type LoudspeakerModel,
} from './index.js';

const flat: LoudspeakerModel = {
  name: 'flat',
  low: { frequency: 30, order: 2 },
  high: { frequency: 20000, order: 2 },
  resonances: [],
  levelDb: 0,
  beamFrequency: 1e9,
  narrowest: 0,
  distortion: { second: 0, third: 0 },
};
const air = { temperatureC: 20, relativeHumidityPercent: 50 };
const options = { rate: 48000, size: 131072, seed: 3 };
const swallows = (a: number) => Array.from({ length: 8 }, () => a);
const hall = (absorption: number, isEnclosed = true): Shape => ({
  outline: rectangle(24, 13),
  heightM: 7,
  floorRise: 0,
  isEnclosed,
  ceiling: { kind: 'flat' },
  walls: Array.from({ length: 4 }, (_, i) => plainFace(`${i}`, swallows(absorption))),
  floor: plainFace('floor', swallows(absorption)),
  roof: plainFace('roof', swallows(absorption)),
});
const roomOf = (shape: Shape): FacetRoom => ({
  facets: facetsOf(shape).map((f) => ({ ...f, area: facetArea(f) })),
  volume: shape.isEnclosed ? shapeVolume(shape) : null,
  air,
});
const [at, to] = [
  { x: 2.1, y: 4.3, z: 2 },
  { x: 17.2, y: 8.1, z: 1.2 },
];
const source = { model: flat, position: at, aim: { x: 1, y: 0, z: 0 }, delayS: 0, gain: 1 };
const energy = (samples: Float64Array, fromS: number, toS: number) => {
  let sum = 0;
  for (let i = Math.round(fromS * 48000); i < toS * 48000; i++) sum += samples[i]! ** 2;
  return sum;
};

it('has the reverberation time of Eyring, whatever the faces', () => {
  const shape = hall(0.12);
  const box: BoxRoom = {
    size: { x: 24, y: 13, z: 7 },
    absorption: Array.from({ length: 6 }, () => swallows(0.12)) as unknown as BoxRoom['absorption'],
    air,
  };
  facetEyringTime(roomOf(shape)).forEach((t, o) => expect(t).toBeCloseTo(eyringTime(box)[o]!, 9));
  expect(() => facetEyringTime(roomOf(hall(0.12, false)))).toThrow(/no volume/);
});

it('is, in a box, as loud as the box by its own way: early, late and on the whole within 1.5 dB', () => {
  const absorption = Array.from({ length: 6 }, () => swallows(0.12)) as unknown as BoxRoom['absorption'];
  const box = boxImpulse({ size: { x: 24, y: 13, z: 7 }, absorption, air }, source, to, options);
  const faces = facetImpulse(roomOf(hall(0.12)), [source], to, options);
  for (const [from, until] of [
    [0, 0.08],
    [0.08, 0.3],
    [0.3, 1],
  ] as const) {
    const difference = 10 * Math.log10(energy(faces, from, until) / energy(box, from, until));
    expect(Math.abs(difference), `${from} to ${until} s`).toBeLessThan(1.5);
  }
});

it('dies away as the absorption says', () => {
  const samples = facetImpulse(roomOf(hall(0.12)), [source], to, options);
  const level = (t: number) => 10 * Math.log10(energy(samples, t, t + 0.1));
  const time = facetEyringTime(roomOf(hall(0.12)))[4]!;
  // broadband energy is that of the highs, which air swallows as well
  const c = speedOfSound(20);
  const perSecond = (f: number) => 60 / time + airAbsorption(f, air) * c;
  const measured = (level(0.3) - level(0.8)) / 0.5;
  expect(measured).toBeGreaterThan(perSecond(500));
  expect(measured).toBeLessThan(perSecond(12000));
});

it('outdoors: the direct sound and one from the ground, nothing else', () => {
  const samples = facetImpulse(roomOf(hall(0, false)), [source], to, options);
  const c = speedOfSound(20);
  const direct = Math.hypot(15.1, 3.8, 0.8) / c;
  const ground = Math.hypot(15.1, 3.8, 3.2) / c;
  const all = energy(samples, 0, 2);
  expect(energy(samples, direct - 0.0004, ground + 0.03) / all).toBeGreaterThan(0.999);
  expect(energy(samples, 0, direct - 0.0005) / all).toBeLessThan(0.001);
  const peak = samples.reduce((best, v, i) => (Math.abs(v) > Math.abs(samples[best]!) ? i : best), 0);
  expect(Math.abs(peak / 48000 - direct)).toBeLessThan(0.0001);
});

it('sources that play together add up, delayed and inverted as asked', () => {
  const open = roomOf(hall(0, false));
  const one = facetImpulse(open, [source], to, options);
  const two = facetImpulse(open, [source, { ...source, gain: -1 }], to, options);
  expect(energy(two, 0, 2)).toBeLessThan(1e-20);
  const later = facetImpulse(open, [{ ...source, delayS: 480 / 48000, gain: 0.5 }], to, options);
  for (let i = 2000; i < 6000; i++) expect(later[i + 480]).toBeCloseTo(0.5 * one[i]!, 6);
});

it('goes to the order that its faces allow, and says so', () => {
  expect(facetOrder(1)).toBe(5);
  expect(facetOrder(6)).toBe(5);
  expect(facetOrder(8)).toBe(4);
  expect(facetOrder(20)).toBe(2);
  expect(facetOrder(500)).toBe(1);
});

it('nothing is heard ahead of the straight way', () => {
  const samples = facetImpulse(roomOf(hall(0.12)), [source], to, options);
  const direct = Math.hypot(15.1, 3.8, 0.8) / speedOfSound(20);
  expect(energy(samples, 0, direct - 0.0008) / energy(samples, 0, 2)).toBeLessThan(1e-4);
});

it('knows how much has been reflected more often than it looks at', () => {
  // 1 - e^-2 (1 + 2 + 2) for more than two where two are expected
  expect(moreThan(2, 2)).toBeCloseTo(1 - 5 * Math.exp(-2), 12);
  expect(moreThan(4, 0)).toBe(0);
  expect(moreThan(4, 40)).toBeCloseTo(1, 9);
});
