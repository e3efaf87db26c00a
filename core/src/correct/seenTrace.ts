import { powerOnGrid } from '../measure/index.js';
import { fineSpectrum, responseAt } from '../path/index.js';
import {
  interpolateLog,
  logGrid,
  powerOfDb,
  type ComplexTrace,
  type ImpulseResponse,
} from '../signal/index.js';
import { excessPhase } from './excessPhase.js';

/** Frequencies at which crossovers are judged. */
export const CROSSOVER_GRID = logGrid(20, 400, 24);

/** What a design sees of a response. */
export interface SeenTrace {
  impulse: ImpulseResponse;
  /** on the grid, the microphone corrected */
  power: Float64Array;
  excess: Float64Array;
  /** on `CROSSOVER_GRID` */
  lows: ComplexTrace;
}

/** Power less what a microphone adds to it; unchanged without a file. */
export function lessCalibration(
  power: Float64Array,
  calibration: { frequency: number[]; levelDb: number[] } | null,
  grid: Float64Array,
): Float64Array {
  if (!calibration) return power;
  const { frequency, levelDb } = calibration;
  const error = interpolateLog(Float64Array.from(frequency), Float64Array.from(levelDb), grid);
  return power.map((p, i) => p / powerOfDb(error[i]!));
}

/** A trace less what a microphone adds to its level; its phase stays. */
function withoutError(trace: ComplexTrace, calibration: Parameters<typeof lessCalibration>[1]): ComplexTrace {
  const power = lessCalibration(
    trace.frequency.map(() => 1),
    calibration,
    trace.frequency,
  );
  return {
    frequency: trace.frequency,
    re: trace.re.map((v, k) => v * Math.sqrt(power[k]!)),
    im: trace.im.map((v, k) => v * Math.sqrt(power[k]!)),
  };
}

/** All that designs read from a response, from one transform. */
export function seeTrace(
  impulse: ImpulseResponse,
  calibration: { frequency: number[]; levelDb: number[] } | null,
  grid: Float64Array,
): SeenTrace {
  const spectrum = fineSpectrum(impulse);
  return {
    impulse,
    power: lessCalibration(powerOnGrid(impulse, grid, 48, spectrum), calibration, grid),
    excess: excessPhase(impulse, grid, spectrum),
    lows: withoutError(responseAt(impulse, CROSSOVER_GRID, spectrum), calibration),
  };
}
