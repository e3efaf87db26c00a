import { exponentialSweep } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { houseMemory } from '../processor/index.js';
import { noFaults, SimulatedRoom } from './index.js';
import { homeSpot } from './measureForTest.js';

it('an input that is not wanted brings nothing, and those that are wanted hear what they always hear', () => {
  const room = new SimulatedRoom(3);
  const sweep = exponentialSweep({ rate: 48000, from: 100, to: 1000, durationS: 0.2, levelDbfs: -20 });
  const samples = Float32Array.from(sweep.samples);
  const { outputs, filters } = houseMemory();
  const take = (inputs?: number[]) =>
    room.record({
      signals: [{ output: 2, samples }],
      lengthFrames: 24000,
      microphones: [{ input: 1, position: homeSpot, serial: 4417, incidenceDeg: 0, gainDb: 0 }],
      outputs,
      filters,
      faults: noFaults(),
      take: 5,
      ...(inputs ? { inputs } : {}),
    });
  const all = take();
  const some = take([1, 3]);
  expect(all.map((c) => c.length)).toEqual(Array(8).fill(24000));
  expect(some.map((c) => c.length)).toEqual([24000, 0, 24000, 0, 0, 0, 0, 0]);
  expect(some[0]).toEqual(all[0]);
  expect(some[2]).toEqual(all[2]);
});
