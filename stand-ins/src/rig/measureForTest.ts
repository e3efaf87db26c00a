import { averageSpots, designMagnitude, firLevelDb, meanInSpan, minimumPhaseFir, placeTarget, rmsDistance, targetCurve, type Span } from '@pebble-hall/core/correct';
import { analyseSweep, usableBand, type AnalysedSweep } from '@pebble-hall/core/measure';
import type { Vector } from '@pebble-hall/core/room';
import { dbOfPower, exponentialSweep, logGrid, smoothPower } from '@pebble-hall/core/signal';
import { houseMemory, plainOutput, type Memory } from '../processor/index.js';
import { noFaults, SimulatedRoom, type Faults } from './simulatedRoom.js';

export const grid = logGrid();
export const sweep = exponentialSweep({ rate: 48000, from: 20, to: 20000, durationS: 3, levelDbfs: -24 });
export const SILENCE_S = 0.6;
export const homeSpot: Vector = [3.6, 1.9, 1.14];
export const spots: Vector[] = [homeSpot, [3.6, 1.6, 1.14], [3.45, 2.5, 1.2], [3.72, 2.25, 1.05], [3.5, 1.8, 1.25], [3.8, 1.95, 1.1], [3.6, 2.7, 1.14], [3.4, 2.1, 1.1], [3.55, 1.4, 1.18], [3.75, 2.6, 1.2], [3.45, 1.5, 1.05]];
export const leftOut: Vector[] = [[3.62, 1.83, 1.12], [3.5, 2.33, 1.16]];

let take = 0;

/** One sweep of one output at one place, through a memory of the processor, analysed. */
export function measure(room: SimulatedRoom, output: number, microphone: Vector, memory: Memory = houseMemory(), faults: Faults = noFaults()): AnalysedSweep {
  const silence = SILENCE_S * 48000;
  const samples = new Float32Array(silence + sweep.samples.length);
  samples.set(sweep.samples, silence);
  const [mic, loopback] = room.record({
    signals: [{ output, samples }],
    lengthFrames: samples.length + 57600,
    microphone,
    outputs: memory.outputs,
    filters: memory.filters,
    faults,
    take: ++take,
  });
  return analyseSweep({ microphone: mic, loopback, rate: 48000, silenceS: SILENCE_S }, sweep);
}

export const levels = (power: Float64Array, fraction = 6) => smoothPower(grid, power, fraction).map(dbOfPower);

/** The whole way from powers at spots to a filter, as the application goes it. */
export function design(powers: Float64Array[], settings = { strength: 1, maxBoostDb: 6, maxCutDb: 15 }) {
  const average = averageSpots(grid, powers);
  const span = usableBand(grid, average.averageDb)!;
  const shape = targetCurve(
    [
      { frequency: 25, levelDb: 3 },
      { frequency: 100, levelDb: 2 },
      { frequency: 1000, levelDb: 0 },
      { frequency: 10000, levelDb: -2.5 },
    ],
    grid,
  );
  const offset = placeTarget(grid, average.averageDb, shape, span);
  const target = shape.map((v) => v + offset);
  const magnitude = designMagnitude(grid, average.averageDb, average.spreadDb, target, { span, ...settings });
  const fir = minimumPhaseFir(grid, magnitude.gainDb, 8192, 48000);
  return { average, span, target, magnitude, fir, firDb: firLevelDb(fir, 48000, grid) };
}

/** RMS distance of a spot to the target's shape, 1/6 octave, levels matched over the span. */
export function shapeDistance(power: Float64Array, target: Float64Array, span: Span): number {
  const off = levels(power).map((v, i) => v - target[i]!);
  const mean = meanInSpan(grid, off, span);
  return rmsDistance(grid, off.map((v) => v - mean), off.map(() => 0), span);
}

export function withFilter(output: number, fir: Float32Array): Memory {
  const memory = houseMemory();
  memory.outputs[output - 1] = { ...plainOutput(), ...memory.outputs[output - 1]!, taps: fir.length };
  memory.filters[output - 1] = fir;
  return memory;
}
