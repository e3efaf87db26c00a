import type { Point } from '@pebble-hall/core/geometry';
import {
  designChannel,
  exactChannel,
  measuredChannel,
  shapeDistance,
  STARTING_FILTER,
  STARTING_GOAL,
  type Span,
} from '@pebble-hall/core/correct';
import { analyseSweep, type AnalysedSweep } from '@pebble-hall/core/measure';
import { dbOfPower, exponentialSweep, logGrid, smoothPower } from '@pebble-hall/core/signal';
import { plainOutput } from '@pebble-hall/core/processing';
import { houseMemory, SKERRY, type Memory } from '../processor/index.js';
import { NET_LOFT_SISKIN } from '../net-loft/index.js';
import { noFaults, type Faults } from './faults.js';
import type { SimulatedRoom } from './simulatedRoom.js';

export const grid = logGrid();
export const sweep = exponentialSweep({ rate: 48000, from: 20, to: 20000, durationS: 3, levelDbfs: -24 });
export const SILENCE_S = 0.6;
export const homeSpot: Point = { x: 3.6, y: 1.72, z: 1.14 };
export const spots: Point[] = [
  homeSpot,
  { x: 3.6, y: 1.6, z: 1.14 },
  { x: 3.45, y: 2.5, z: 1.2 },
  { x: 3.72, y: 2.25, z: 1.05 },
  { x: 3.5, y: 1.8, z: 1.25 },
  { x: 3.8, y: 1.95, z: 1.1 },
  { x: 3.6, y: 2.7, z: 1.14 },
  { x: 3.4, y: 2.1, z: 1.1 },
  { x: 3.55, y: 1.4, z: 1.18 },
  { x: 3.75, y: 2.6, z: 1.2 },
  { x: 3.45, y: 1.5, z: 1.05 },
];
export const leftOut: Point[] = [
  { x: 3.62, y: 1.83, z: 1.12 },
  { x: 3.5, y: 2.33, z: 1.16 },
];

/** Takes of each room so far: what it hears by chance depends on them, and on nothing that was measured in another one. */
const takes = new WeakMap<SimulatedRoom, number>();

/** One sweep of one output (or input) at one place, through a memory of the processor, analysed. */
export function measure(
  room: SimulatedRoom,
  output: number,
  microphone: Point,
  memory: Memory = houseMemory(),
  faults: Faults = noFaults(),
  played = sweep,
  through: 'outputs' | 'inputs' = 'outputs',
): AnalysedSweep {
  const silence = SILENCE_S * 48000;
  const take = (takes.get(room) ?? 0) + 1;
  takes.set(room, take);
  const samples = new Float32Array(silence + played.samples.length);
  samples.set(played.samples, silence);
  const [mic, loopback] = room.record({
    signals: [{ output, samples }],
    through,
    lengthFrames: samples.length + 57600,
    microphones: [{ input: 1, position: microphone, serial: NET_LOFT_SISKIN, incidenceDeg: 0, gainDb: 0 }],
    outputs: memory.outputs,
    filters: memory.filters,
    faults,
    inputs: [1, 2],
    take,
  });
  return analyseSweep({ microphone: mic!, loopback: loopback!, rate: 48000, silenceS: SILENCE_S }, played);
}

export const levels = (power: Float64Array, fraction = 6) =>
  smoothPower(grid, power, fraction).map(dbOfPower);

/** What the processor stand-in holds, as far as a design asks. */
export const PROCESSOR = SKERRY;

/** The whole way from powers at spots to a filter, as the application goes it. */
export function design(powers: Float64Array[]) {
  const goal = { id: 'x', ...STARTING_GOAL, span: null, targetOffsetDb: null };
  const designed = designChannel(grid, goal, measuredChannel(grid, powers));
  const { fir, levelDb } = exactChannel(grid, designed, STARTING_GOAL, STARTING_FILTER, PROCESSOR);
  return { ...designed, fir: fir!, firDb: levelDb };
}

/** RMS distance of a spot to the target's shape over the span. */
export const distanceOf = (
  power: Float64Array,
  { targetDb, span }: { targetDb: Float64Array; span: Span },
): number => shapeDistance(grid, power.map(dbOfPower), targetDb, span);

export function withFilter(output: number, fir: Float32Array): Memory {
  const memory = houseMemory();
  memory.outputs[output - 1] = { ...plainOutput(), ...memory.outputs[output - 1]!, taps: fir.length };
  memory.filters[output - 1] = fir;
  return memory;
}
