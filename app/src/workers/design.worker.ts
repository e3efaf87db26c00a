import {
  designChannel,
  exactChannel,
  foundChannel,
  predictImpulse,
  type ChannelDesign,
  type ChannelRequest,
  type ExactChannel,
  type FoundChannel,
} from '@pebble-hall/core/correct';
import { responseOnGrid, powerOnGrid, type SampledResponse } from '@pebble-hall/core/measure';
import { averageMovement, type AverageMovement } from '@pebble-hall/core/spots';
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

/** The channels designed last, as found: they stay while a handle moves. */
const founds = new Map<string, { spots: string; found: FoundChannel }>();

function foundOf({ id, spots, weights, leftOut }: ChannelRequest): FoundChannel {
  const wanted = [...spots, '', ...leftOut, '', ...(weights ?? [])].join('\n');
  const known = founds.get(id);
  if (known?.spots === wanted) return known.found;
  const found = foundChannel(grid, spots.map(powerOf), leftOut.map(powerOf), weights);
  founds.set(id, { spots: wanted, found });
  return found;
}

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
  /** How far the average of some traces still moves when one is left out. */
  movement: (keys: string[], band: { from: number; to: number }): AverageMovement | null =>
    averageMovement(grid, keys.map(powerOf), band),
  design: (requests: ChannelRequest[]): ChannelDesign[] =>
    requests.map((request) => designChannel(grid, request, foundOf(request))),
  exact: (request: ChannelRequest, taps: number, rate: number): ExactChannel =>
    exactChannel(grid, designChannel(grid, request, foundOf(request)), taps, rate),
};
export type DesignApi = typeof api;
expose(api);
