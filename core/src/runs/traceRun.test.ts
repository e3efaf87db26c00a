import { describe, expect, it } from 'vitest';
import { OCTAVES } from '../room/index.js';
import { boxFaces } from '../tracing/roomsForTest.js';
import { energyOverTime, sceneOf } from '../tracing/index.js';
import {
  heardInRun,
  partsOf,
  readReceiver,
  sentBy,
  settingOfRun,
  traceGroup,
  tracedReceiver,
  voiceLevels,
  wholeGroups,
  type RoomRun,
  type RunSource,
} from './index.js';

const omni: RunSource = {
  id: 'o',
  name: 'One',
  kind: 'omnidirectional',
  position: { x: 1, y: 2, z: 1.5 },
};
const talker: RunSource = {
  id: 't',
  name: 'Talker',
  kind: 'talker',
  position: { x: 1, y: 2, z: 1.5 },
  azimuthDeg: 0,
  elevationDeg: 0,
  voice: 'normal',
};

const runOf = (change: Partial<RoomRun>): RoomRun => ({
  id: 'r',
  name: 'Run',
  madeAt: 1,
  faces: boxFaces({ x: 7, y: 5, z: 3 }, 0.3, 0.3).map((f, i) => ({
    name: `face ${i}`,
    corners: [...f.corners],
    absorption: f.absorption,
    scattering: f.scattering,
  })),
  volume: 105,
  air: { temperatureC: 20, relativeHumidityPercent: 50 },
  sources: [omni],
  receivers: [
    { id: 'a', name: 'Seat 1', position: { x: 5, y: 2, z: 1.2 }, azimuthDeg: 180 },
    { id: 'b', name: 'Seat 2', position: { x: 6, y: 4, z: 1.2 }, azimuthDeg: 180 },
  ],
  mirrored: 2,
  lengthS: 0.8,
  raysPerGroup: 400,
  groups: 4,
  seed: 11,
  noiseLevelsDb: null,
  tracedBy: 'browser',
  isHeld: false,
  ...change,
});

const rowsOf = (run: RoomRun) => {
  const scene = sceneOf(run.faces);
  return run.sources.flatMap((s, source) =>
    Array.from({ length: run.groups }, (_, group) => traceGroup(run, scene, source, group, sentBy(s, null))),
  );
};
const read = (run: RoomRun, receiver: number) => {
  const parts = partsOf(run, rowsOf(run));
  const heard = heardInRun(settingOfRun(run), parts, tracedReceiver(run.receivers[receiver]!), receiver);
  return { heard, reading: readReceiver(parts, heard, run.noiseLevelsDb) };
};

it('the same seed brings the same numbers, group by group, in whatever order', () => {
  const run = runOf({});
  const scene = sceneOf(run.faces);
  const sent = sentBy(omni, null);
  const third = traceGroup(run, scene, 0, 2, sent);
  expect(traceGroup(run, scene, 0, 2, sent)).toEqual(third);
  expect(rowsOf(run)[2]).toEqual(third);
  expect(traceGroup(run, scene, 0, 1, sent).data).not.toEqual(third.data);
});

describe('one source alone', () => {
  const run = runOf({});
  const { reading } = read(run, 0);
  it('is as strong as statistics have it: direct sound and what the room holds, within a decibel', () => {
    const surface = 2 * (7 * 5 + 7 * 3 + 5 * 3);
    const area = -surface * Math.log(1 - 0.3);
    // 1 / r^2 and 16 pi / A, of which nothing comes ahead of the direct sound (Barron and Lee 1988), against the open at 10 m
    const timeS = (0.161 * 105) / area;
    const reverberant = ((16 * Math.PI) / area) * Math.exp((-0.04 * 4) / timeS);
    const wanted = 10 * Math.log10(1 / 16 + reverberant) + 20;
    for (const o of [2, 3, 4]) expect(Math.abs(reading.figures[o]!.g - wanted)).toBeLessThan(1);
  });
  it('has a level against 1 m, as it has none of its own', () => {
    for (const o of [2, 3, 4]) expect(reading.levelDb[o]).toBeCloseTo(reading.figures[o]!.g - 20, 6);
  });
});

it('a talker is heard at his level and that of the room; noise takes from the index', () => {
  const silent = read(runOf({ sources: [talker] }), 0).reading;
  const levels = voiceLevels('normal');
  // 4 m ahead: less than at 1 m by no more than the distance takes, as the room helps
  for (const o of [3, 4, 5]) {
    expect(silent.levelDb[o]).toBeGreaterThan(levels[o]! - 12);
    expect(silent.levelDb[o]).toBeLessThan(levels[o]!);
  }
  const noise = (db: number) =>
    read(runOf({ sources: [talker], noiseLevelsDb: OCTAVES.map(() => db) }), 0).reading.sti;
  expect(noise(20)).toBeGreaterThan(noise(50) + 0.1);
  expect(noise(70)).toBeLessThan(0.3);
});

it('two sources of one power at one place are twice one', () => {
  const one = read(runOf({}), 1).heard.all;
  const two = read(runOf({ sources: [omni, { ...omni, id: 'p' }] }), 1).heard.all;
  const sum = (heard: typeof one) => energyOverTime(heard, 4).reduce((a, b) => a + b, 0);
  expect(10 * Math.log10(sum(two) / sum(one))).toBeCloseTo(3, 0);
});

it('counts a group when all sources have it', () => {
  const run = runOf({ sources: [omni, { ...omni, id: 'p' }] });
  const there = [0, 1, 2].map((group) => ({ source: 0, group })).concat([{ source: 1, group: 1 }]);
  expect(wholeGroups(run, there)).toEqual([1]);
  expect(() => partsOf(run, [])).toThrow(/no group/);
});

it('a loudspeaker needs its channel, and gets speech at its level', () => {
  const source: RunSource = {
    id: 'l',
    name: 'Left',
    kind: 'loudspeaker',
    position: { x: 1, y: 1, z: 2 },
    loudspeakerId: 'left',
    signalDbfs: -20,
    setting: 'x',
  };
  expect(() => sentBy(source, null)).toThrow(/Left/);
  const sent = sentBy(source, {
    table: new Float64Array(37 * 72 * 8).fill(1),
    powerDb: OCTAVES.map(() => 120),
    delayS: 0.01,
  });
  const all = sent.powerDb.reduce((sum, db) => sum + 10 ** (db / 10), 0);
  expect(10 * Math.log10(all)).toBeCloseTo(100, 9);
  expect(sent.delayS).toBe(0.01);
});
