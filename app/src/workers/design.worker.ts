import {
  designChannel,
  exactChannel,
  predictImpulse,
  type ChannelDesign,
  type ChannelRequest,
  type ExactChannel,
} from '@pebble-hall/core/correct';
import { responseOnGrid, powerOnGrid, type SampledResponse } from '@pebble-hall/core/measure';
import { dbOfPower, interpolateLog, logGrid, powerOfDb } from '@pebble-hall/core/signal';
import { expose } from 'comlink';

const grid = logGrid();
/** Power on the grid of every trace seen so far, microphone corrected; by trace and calibration. */
const powers = new Map<string, Float64Array>();

export interface TraceToAdd {
  key: string;
  samples: Float32Array;
  rate: number;
  zero: number;
  calibration: { frequency: number[]; levelDb: number[] } | null;
}

/** Power less what the microphone adds to it. */
function corrected(power: Float64Array, calibration: TraceToAdd['calibration']): Float64Array {
  if (!calibration) return power;
  const { frequency, levelDb } = calibration;
  const error = interpolateLog(Float64Array.from(frequency), Float64Array.from(levelDb), grid);
  return power.map((p, i) => p / powerOfDb(error[i]!));
}

const powerOf = (key: string): Float64Array => {
  const power = powers.get(key);
  if (!power) throw new Error(`The trace ${key} is not there.`);
  return power;
};

const api = {
  has: (keys: string[]): boolean[] => keys.map((key) => powers.has(key)),
  add: (trace: TraceToAdd): void => {
    powers.set(trace.key, corrected(powerOnGrid(trace, grid), trace.calibration));
  },
  /** Level of one trace on the grid, dB. */
  level: (key: string): Float64Array => powerOf(key).map(dbOfPower),
  /** Level that a trace becomes through a filter, computed from its samples; dB on the grid. */
  predicted: (trace: TraceToAdd, fir: Float32Array): Float64Array =>
    corrected(powerOnGrid(predictImpulse(trace, fir), grid), trace.calibration).map(dbOfPower),
  /** Level and phase of a trace on the grid, microphone corrected. */
  response: (trace: TraceToAdd): SampledResponse => {
    const response = responseOnGrid(trace, grid);
    const levelDb = corrected(response.levelDb.map(powerOfDb), trace.calibration).map(dbOfPower);
    return { ...response, levelDb };
  },
  design: (requests: ChannelRequest[]): ChannelDesign[] =>
    requests.map((request) => designChannel(grid, request, powerOf)),
  exact: (request: ChannelRequest, taps: number, rate: number): ExactChannel =>
    exactChannel(grid, designChannel(grid, request, powerOf), taps, rate),
};
export type DesignApi = typeof api;
expose(api);
