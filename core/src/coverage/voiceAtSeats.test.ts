import { describe, expect, it } from 'vitest';
import { axesOf } from '../geometry/index.js';
import { signalPath } from '../path/index.js';
import { voiceAtSeats, type CoverageChannel, type VoiceRequest } from './index.js';
import { POINT_MODEL } from './pointModelForTest.js';

/** A point source of 120 dB SPL at 1 m for a sine of full scale, from far below hearing to far above it. */
const channel = (x: number, delayS: number): CoverageChannel => ({
  id: `at ${x}`,
  model: POINT_MODEL,
  boxes: [{ position: { x, y: 0, z: 1.5 }, axes: axesOf(0), delayMs: 0, inverted: false }],
  path: signalPath(48_000, { delayS }),
});

const request = (change: Partial<VoiceRequest> = {}): VoiceRequest => ({
  talker: { position: { x: 0, y: 0, z: 1.5 }, azimuthDeg: 0, voice: 'normal' },
  channels: [],
  signalDbfs: -20,
  points: Float64Array.of(1, 0, 1.5, 10, 0, 1.5, 0, 10, 1.5, -7.07, 7.07, 1.5),
  speed: 343,
  air: { temperatureC: 20, relativeHumidityPercent: 50 },
  nearM: 2,
  ...change,
});

describe('a talker at seats', () => {
  const at = voiceAtSeats(request());
  it('has 1 m ahead what the octaves of speech add up to, A-weighted', () => {
    // normal voice: octaves 59.2, 53.2, 47.2, 41.2 dB; A-weighting -3.2, 0, 1.2, 1
    const sum = [56, 53.2, 48.4, 42.2].reduce((s, db) => s + 10 ** (db / 10), 0);
    expect(at.voiceDb[0]).toBeCloseTo(10 * Math.log10(sum), 0);
  });
  it('loses 20 dB from 1 to 10 m, and more beside and behind', () => {
    expect(at.voiceDb[0]! - at.voiceDb[1]!).toBeCloseTo(20, 0);
    expect(at.voiceDb[2]!).toBeLessThan(at.voiceDb[1]!);
    expect(at.voiceDb[3]!).toBeLessThan(at.voiceDb[2]!);
  });
  it('arrives by the way, and seats near him are told', () => {
    expect(at.voiceS[1]).toBeCloseTo(10 / 343, 12);
    expect(at.isNear).toEqual([true, false, false, false]);
  });
});

it('a loudspeaker has its level for speech of its signal, its distance, its delay and its gain', () => {
  const at = voiceAtSeats(request({ channels: [channel(0, 0.005)], signalDbfs: -40 }));
  // speech of -40 dBFS: 80 dB at 1 m, of which 500 Hz to 4 kHz are so much, A-weighted
  const octaves = [2.9, 2.9, -0.8, -6.8, -12.8, -18.8, -24.8];
  const all = octaves.reduce((s, db) => s + 10 ** (db / 10), 0);
  const heard = [-0.8 - 3.2, -6.8, -12.8 + 1.2, -18.8 + 1].reduce((s, db) => s + 10 ** (db / 10), 0);
  expect(at.levelDb[0]![0]).toBeCloseTo(80 + 10 * Math.log10(heard / all), 1);
  expect(at.levelDb[0]![0]! - at.levelDb[0]![2]!).toBeCloseTo(20, 0);
  expect(at.arriveS[0]![1]).toBeCloseTo(10 / 343 + 0.005, 9);
});
