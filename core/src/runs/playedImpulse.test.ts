import { describe, expect, it } from 'vitest';
import { roomFigures } from '../acoustics/index.js';
import { findArrival } from '../measure/index.js';
import { roomStatistics, speedOfSound } from '../room/index.js';
import { binFrequencies, powerOf, realFft } from '../signal/index.js';
import { sceneOf } from '../tracing/index.js';
import { boxFaces } from '../tracing/roomsForTest.js';
import { playedImpulse, playedRays, sentTogether, type PlayedBox, type PlayedRoom } from './index.js';

const rate = 48_000;
const size = 65_536;
const air = { temperatureC: 20, relativeHumidityPercent: 50 };
const speed = speedOfSound(20);
const roomFrom = (faces: ReturnType<typeof boxFaces>, volume: number | null): PlayedRoom => ({
  faces,
  scene: sceneOf(faces),
  volume,
  air,
  mirrored: 2,
});
const room = roomFrom(boxFaces({ x: 7, y: 5, z: 3.2 }, 0.25, 0.7), 112);
/** The ground alone: the floor of a box. */
const open = roomFrom(
  boxFaces({ x: 60, y: 60, z: 3 }, 0.2, 0).filter((f) => f.corners.every((c) => c.z === 0)),
  null,
);
const everywhere = (_x: number, _y: number, _z: number, out: Float64Array) => out.fill(1);
const box: PlayedBox = { position: { x: 1.2, y: 1.4, z: 1.3 }, emission: everywhere, delayS: 0, gain: 1 };
const receiver = { x: 5.1, y: 3.2, z: 1.2 };
const frequency = binFrequencies(size, rate);
const flat = { frequency, re: new Float64Array(size / 2 + 1).fill(1), im: new Float64Array(size / 2 + 1) };
const played = (boxes: PlayedBox[], where: PlayedRoom = room, seed = 3) =>
  playedImpulse(
    where,
    boxes,
    receiver,
    where.volume === null
      ? null
      : { from: playedRays(where, [boxes], receiver, { rays: 4000, lengthS: 0.9, seed }), channel: 0 },
    { rate, size, seed, onAxis: flat, lows: null },
  );
const energy = (samples: Float64Array, fromS = 0, toS = size / rate) => {
  let sum = 0;
  for (let i = Math.round(fromS * rate); i < toS * rate; i++) sum += samples[i]! ** 2;
  return sum;
};
const way = Math.hypot(3.9, 1.8, 0.1);

describe('what is played in a room', () => {
  it('brings the direct sound when its way is over, and nothing ahead of it', () => {
    const samples = played([box]);
    const arrival = findArrival({ samples, rate, zero: 0 })!;
    expect(Math.abs(arrival.peakS - way / speed)).toBeLessThan(1 / rate);
    expect(energy(samples, 0, way / speed - 0.0005) / energy(samples)).toBeLessThan(1e-4);
  });

  it('rings in each octave as statistics say where it scatters much, within 12 %', () => {
    const { eyring } = roomStatistics(
      room.faces.map(({ absorption }, i) => ({ area: room.scene.areas[i]!, absorption })),
      112,
      air,
    );
    const figures = [3, 4, 5].map((seed) =>
      roomFigures({ samples: played([box], room, seed), rate, zero: 0 })!,
    );
    for (const o of [3, 4, 5]) {
      const times = figures.map((f) => (f[o]!.t20.found ? f[o]!.t20.value : NaN));
      const mean = times.reduce((a, b) => a + b) / times.length;
      expect(Math.abs(mean / eyring[o]! - 1), `octave ${o}`).toBeLessThan(0.12);
    }
  });

  it('is late as loud as a diffuse field of that power: 4 pi c / V of energy in a second at its start, within 1.5 dB', () => {
    const { eyring } = roomStatistics(
      room.faces.map(({ absorption }, i) => ({ area: room.scene.areas[i]!, absorption })),
      112,
      air,
    );
    const decay = (6 * Math.LN10) / eyring[4]!;
    const fromS = 0.1;
    const seeds = [3, 4, 5, 6];
    const inOctave = seeds.reduce((all, seed) => {
      const late = played([box], room, seed).map((v, i) => (i < fromS * rate ? 0 : v));
      return powerOf(realFft(late)).reduce((sum, p, k) => {
        const hz = frequency[k]!;
        return hz >= 707 && hz < 1414 ? sum + (2 * p) / size / seeds.length : sum;
      }, all);
    }, 0);
    const wanted = (((4 * Math.PI * speed) / 112 / decay) * Math.exp(-decay * fromS) * 707) / (rate / 2);
    expect(Math.abs(10 * Math.log10(inOctave / wanted))).toBeLessThan(1.5);
  });

  it('is over before its end: nothing comes round from ahead of the drive', () => {
    const samples = played([{ ...box, position: { x: 5, y: 3.1, z: 1.2 } }]);
    expect(energy(samples, (0.95 * size) / rate)).toBe(0);
  });

  it('is the same for the same seed', () => {
    expect(played([box])).toEqual(played([box]));
    expect(played([box])).not.toEqual(played([box], room, 4));
  });
});

describe('in the open', () => {
  it('the direct sound and one from the ground, nothing else', () => {
    const samples = played([box], open);
    const ground = Math.hypot(3.9, 1.8, 2.5);
    const all = energy(samples);
    // 1 / r^2 each, the ground swallows a fifth, and air 0.1 dB a metre from 8 kHz on
    const lostDb = -10 * Math.log10(all / (1 / way ** 2 + 0.8 / ground ** 2));
    expect(lostDb).toBeGreaterThan(0.1);
    expect(lostDb).toBeLessThan(0.6);
    expect(energy(samples, way / speed - 0.0004, ground / speed + 0.001) / all).toBeGreaterThan(0.99);
  });

  it('boxes that play together add up, later and turned over as asked', () => {
    expect(energy(played([box, { ...box, gain: -1 }], open))).toBeLessThan(1e-20);
    const one = played([box], open);
    const later = played([{ ...box, delayS: 0.01, gain: -1 }], open);
    for (let i = 500; i < 2000; i++) expect(later[i + 480]).toBeCloseTo(-one[i]!, 6);
  });
});

describe('what boxes send together', () => {
  const out = new Float64Array(8);
  const to = ([x, y, z]: [number, number, number], of: ReturnType<typeof sentTogether>) => {
    of.emission!(x, y, z, out);
    return out.slice();
  };

  it('two in one place send four times the energy of one, everywhere', () => {
    const both = sentTogether([box, { ...box }], speed);
    for (const e of to([0, 1, 0], both)) expect(e).toBeCloseTo(4, 6);
  });

  it('a gradient pair sends nothing behind in its lows, and ahead what two shifts of its spacing leave', () => {
    const d = 0.8;
    const pair = [
      { ...box, position: { x: 2, y: 2, z: 1 } },
      { ...box, position: { x: 2 - d, y: 2, z: 1 }, delayS: d / speed, gain: -1 },
    ];
    const sent = sentTogether(pair, speed);
    expect(sent.delayS).toBe(0);
    expect(to([-1, 0, 0], sent)[0]).toBeLessThan(1e-6);
    // ahead |1 - exp(-j 2 k d)|^2, on the mean over the octave
    const ahead = to([1, 0, 0], sent)[0]!;
    let wanted = 0;
    for (let i = 0; i < 200; i++)
      wanted += (2 - 2 * Math.cos((4 * Math.PI * 63 * 2 ** ((i + 0.5) / 200 - 0.5) * d) / speed)) / 200;
    expect(ahead / wanted).toBeGreaterThan(0.95);
    expect(ahead / wanted).toBeLessThan(1.05);
    expect(() => sentTogether([], speed)).toThrow(RangeError);
  });
});
