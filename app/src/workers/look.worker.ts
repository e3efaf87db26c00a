import {
  FIGURE_OCTAVES,
  roomFigures,
  speechTransmission,
  type OctaveFigures,
  type SpeechAndNoise,
} from '@pebble-hall/core/acoustics';
import {
  decayMap,
  energyTimeDb,
  excessGroupDelay,
  findReflections,
  findResonances,
  groupDelay,
  stepResponse,
  unwrappedPhase,
  windowedLevelDb,
  type DecayMap,
  type DecayMapRequest,
  type FrequencyWindow,
  type Reflection,
  type Resonance,
} from '@pebble-hall/core/views';
import {
  findArrival,
  powerOnGrid,
  windowImpulse,
  type Arrival,
  type DecayEnd,
  type TimeWindow,
} from '@pebble-hall/core/measure';
import { dbOfPower, interpolateLog, logGrid, type ImpulseResponse } from '@pebble-hall/core/signal';
import { expose, transfer } from 'comlink';

const grid = logGrid();

/** A trace to look at. */
export interface TraceToLookAt {
  key: string;
  samples: Float32Array;
  rate: number;
  zero: number;
  calibration: { frequency: number[]; levelDb: number[] } | null;
  decayEnd: DecayEnd | null;
}

interface Known {
  impulse: ImpulseResponse;
  arrival: Arrival | null;
  /** what the microphone adds, dB on the grid; null without a file */
  errorDb: Float64Array | null;
  decayEnd: DecayEnd | null;
  levelDb: Float64Array;
}

const known = new Map<string, Known>();

function traceOf(key: string): Known {
  const found = known.get(key);
  if (!found) throw new Error(`The trace ${key} is not there.`);
  return found;
}

const lessError = (levelDb: Float64Array, errorDb: Float64Array | null, corrected: boolean) =>
  errorDb && corrected ? levelDb.map((v, i) => v - errorDb[i]!) : levelDb;

/** Where lows and highs part in the fade that a stored response has. */
const SPLIT_HZ = 300;

/** Response around its arrival, as it looks in time. */
export interface TimeCurves {
  /** milliseconds after the arrival of the first of the samples, and between them */
  fromMs: number;
  stepMs: number;
  impulse: Float32Array;
  step: Float32Array;
  energyDb: Float32Array;
}

const api = {
  has: (keys: string[]): boolean[] => keys.map((key) => known.has(key)),
  add: ({ key, samples, rate, zero, calibration, decayEnd }: TraceToLookAt): void => {
    const impulse = { samples, rate, zero };
    known.set(key, {
      impulse,
      arrival: findArrival(impulse),
      errorDb:
        calibration &&
        interpolateLog(
          Float64Array.from(calibration.frequency),
          Float64Array.from(calibration.levelDb),
          grid,
        ),
      decayEnd,
      levelDb: powerOnGrid(impulse, grid).map(dbOfPower),
    });
  },
  levels: (keys: string[], corrected: boolean): Float64Array[] =>
    keys.map((key) => {
      const { levelDb, errorDb } = traceOf(key);
      return lessError(levelDb, errorDb, corrected);
    }),
  /** Phase (degrees) with the arrival taken off, group delay and its excess (ms after the arrival). */
  delays: (key: string): { phaseDeg: Float64Array; groupMs: Float64Array; excessMs: Float64Array } => {
    const { impulse, arrival } = traceOf(key);
    const at = arrival?.peakS ?? 0;
    const ms = (seconds: Float64Array) => seconds.map((s) => 1000 * (s - at));
    return {
      phaseDeg: unwrappedPhase(impulse, grid, at),
      groupMs: ms(groupDelay(impulse, grid, 6)),
      excessMs: ms(excessGroupDelay(impulse, grid, 6)),
    };
  },
  time: (key: string, { fromMs, toMs }: { fromMs: number; toMs: number }): TimeCurves => {
    const { impulse, arrival } = traceOf(key);
    const { rate, zero, samples } = impulse;
    const start = zero + (arrival?.peakS ?? 0) * rate;
    const from = Math.max(0, Math.round(start + (fromMs / 1000) * rate));
    const to = Math.min(samples.length, Math.round(start + (toMs / 1000) * rate));
    const peak = Math.abs(arrival?.peak ?? 1);
    const curves = {
      fromMs: (1000 * (from - start)) / rate,
      stepMs: 1000 / rate,
      impulse: Float32Array.from(samples.subarray(from, to), (v) => v / peak),
      step: Float32Array.from(stepResponse(impulse).subarray(from, to)),
      energyDb: Float32Array.from(energyTimeDb(impulse).subarray(from, to)),
    };
    const most = curves.step.reduce((m, v) => Math.max(m, Math.abs(v)), 1e-12);
    curves.step = curves.step.map((v) => v / most);
    return transfer(curves, [curves.impulse.buffer, curves.step.buffer, curves.energyDb.buffer]);
  },
  /** Level through a time window around the arrival: a fixed one, or one as long as so many periods. */
  windowed: (
    key: string,
    window: { leftS: number; rightS: number } | { cycles: number },
    corrected: boolean,
  ): Float64Array => {
    const { impulse, arrival, errorDb } = traceOf(key);
    const centreS = arrival?.peakS ?? 0;
    const levelDb =
      'cycles' in window
        ? windowedLevelDb(impulse, grid, {
            centreS,
            cycles: window.cycles,
            longestS: 0.5,
          } satisfies FrequencyWindow)
        : powerOnGrid(windowImpulse(impulse, { centreS, ...window } satisfies TimeWindow), grid).map(
            dbOfPower,
          );
    return lessError(levelDb, errorDb, corrected);
  },
  decay: (key: string, request: Omit<DecayMapRequest, 'fromS' | 'toS'> & { lengthS: number }): DecayMap => {
    const { impulse, arrival } = traceOf(key);
    const { lengthS, ...rest } = request;
    const fromS = arrival?.onsetS ?? 0;
    const map = decayMap(impulse, { ...rest, fromS, toS: fromS + lengthS });
    return transfer({ ...map, timeS: map.timeS.map((t) => t - fromS) }, [map.levelDb.buffer]);
  },
  resonances: (keys: string[], band: { fromHz: number; toHz: number }): Resonance[] =>
    findResonances(grid, keys.map(traceOf), band),
  reflections: (key: string, speedOfSound: number): Reflection[] =>
    findReflections(traceOf(key).impulse, speedOfSound),
  /** Figures of ISO 3382-1 of each trace, octave by octave. */
  figures: (keys: string[]): (OctaveFigures[] | null)[] =>
    keys.map((key) => {
      const { impulse, decayEnd } = traceOf(key);
      return roomFigures(impulse, FIGURE_OCTAVES, ({ centre }) =>
        centre < SPLIT_HZ ? (decayEnd?.lowS ?? null) : (decayEnd?.highS ?? null),
      );
    }),
  speech: (keys: string[], levels: SpeechAndNoise | null): (number | null)[] =>
    keys.map((key) => speechTransmission(traceOf(key).impulse, levels)),
};
export type LookApi = typeof api;
expose(api);
