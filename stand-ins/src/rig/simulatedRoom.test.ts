import { exponentialSweep } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { houseMemory } from '../processor/index.js';
import { NET_LOFT_PLACE, noFaults, SimulatedRoom } from './index.js';
import { SimulatedWays } from './simulatedWays.js';
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

it('plays in a room with a wall of no length, and outside of it is heard just in front of the wall', () => {
  const { shape } = NET_LOFT_PLACE;
  const [corner] = shape.outline;
  const doubled = {
    ...NET_LOFT_PLACE,
    shape: { ...shape, outline: [corner!, ...shape.outline], walls: [shape.walls[0]!, ...shape.walls] },
  };
  const [left] = NET_LOFT_PLACE.loudspeakers;
  const heard = new SimulatedWays(doubled, 48000, 1).impulse(left!, [left!], { x: 99, y: 2, z: 1 });
  expect(heard.every(Number.isFinite)).toBe(true);
  expect(heard.some((v) => v !== 0)).toBe(true);
});
