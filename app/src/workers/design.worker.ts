import { designChannel, exactChannel, type ChannelDesign, type ChannelRequest, type ExactChannel } from '@pebble-hall/core/correct';
import { powerOnGrid } from '@pebble-hall/core/measure';
import { interpolateLog, logGrid, powerOfDb } from '@pebble-hall/core/signal';
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

const powerOf = (key: string): Float64Array => {
  const power = powers.get(key);
  if (!power) throw new Error(`The trace ${key} is not there.`);
  return power;
};

const api = {
  has: (keys: string[]): boolean[] => keys.map((key) => powers.has(key)),
  add: ({ key, samples, rate, zero, calibration }: TraceToAdd): void => {
    let power = powerOnGrid({ samples, rate, zero }, grid);
    if (calibration) {
      const { frequency, levelDb } = calibration;
      const error = interpolateLog(Float64Array.from(frequency), Float64Array.from(levelDb), grid);
      power = power.map((p, i) => p / powerOfDb(error[i]!));
    }
    powers.set(key, power);
  },
  /** Level of one trace on the grid, dB. */
  level: (key: string): Float64Array => powerOf(key).map((p) => 10 * Math.log10(p)),
  design: (requests: ChannelRequest[]): ChannelDesign[] => requests.map((request) => designChannel(grid, request, powerOf)),
  exact: (request: ChannelRequest, taps: number, rate: number): ExactChannel =>
    exactChannel(grid, designChannel(grid, request, powerOf), taps, rate),
};
export type DesignApi = typeof api;
expose(api);
