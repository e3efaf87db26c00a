import {
  FIGURE_OCTAVES,
  roomFigures,
  speechTransmission,
  type OctaveFigures,
  type SpeechAndNoise,
} from '../acoustics/index.js';
import { lessCalibration } from '../correct/index.js';
import { findArrival, powerOnGrid, windowImpulse, type Arrival, type DecayEnd } from '../measure/index.js';
import { dbOfPower, logGrid, powerOfDb, type ImpulseResponse } from '../signal/index.js';
import {
  decayMap,
  excessGroupDelay,
  findReflections,
  findResonances,
  groupDelay,
  timeCurves,
  unwrappedPhase,
  windowedLevelDb,
  type DecayMap,
  type DecayMapRequest,
  type Reflection,
  type Resonance,
  type TimeCurves,
} from '../views/index.js';
import { TraceShelf, type LoadImpulse } from './traceShelf.js';
import type { MicrophoneError, TraceRef } from './traceSource.js';

interface ViewedTrace {
  impulse: ImpulseResponse;
  calibration: MicrophoneError | null;
  arrival: Arrival | null;
  levelDb: Float64Array;
}

/** A trace to be looked at, and where its decay ends as far as that is known. */
export interface ViewedRef extends TraceRef {
  decayEnd: DecayEnd | null;
}

/** Where lows and highs part in the fade that a stored response has. */
const SPLIT_HZ = 300;
const LONGEST_WINDOW_S = 0.5;

/** All ways of looking at stored traces, which it loads as they are asked for and keeps at hand. */
export class ViewDesk {
  private readonly grid = logGrid();
  private readonly shelf: TraceShelf<ViewedTrace>;

  constructor(load: LoadImpulse) {
    this.shelf = new TraceShelf(load, ({ impulse, calibration }) => ({
      impulse,
      calibration,
      arrival: findArrival(impulse),
      levelDb: powerOnGrid(impulse, this.grid).map(dbOfPower),
    }));
  }

  /** Levels on the grid, dB. @param corrected whether seen through the microphone's file */
  async levels(refs: TraceRef[], corrected: boolean): Promise<Float64Array[]> {
    return (await this.shelf.all(refs)).map(({ levelDb, calibration }) =>
      this.seen(levelDb, corrected ? calibration : null),
    );
  }

  /** Phase (degrees) with the arrival taken off, group delay and its excess (ms after the arrival). */
  async delays(
    ref: TraceRef,
  ): Promise<{ phaseDeg: Float64Array; groupMs: Float64Array; excessMs: Float64Array }> {
    const { impulse, arrival } = await this.shelf.get(ref);
    const at = arrival?.peakS ?? 0;
    const ms = (seconds: Float64Array) => seconds.map((s) => 1000 * (s - at));
    return {
      phaseDeg: unwrappedPhase(impulse, this.grid, at),
      groupMs: ms(groupDelay(impulse, this.grid, 6)),
      excessMs: ms(excessGroupDelay(impulse, this.grid, 6)),
    };
  }

  async time(ref: TraceRef, window: { fromMs: number; toMs: number }): Promise<TimeCurves> {
    const { impulse, arrival } = await this.shelf.get(ref);
    return timeCurves(impulse, arrival, window);
  }

  /** Level through a time window around the arrival: a fixed one, or one as long as so many periods. */
  async windowed(
    ref: TraceRef,
    window: { leftS: number; rightS: number } | { cycles: number },
    corrected: boolean,
  ): Promise<Float64Array> {
    const { impulse, arrival, calibration } = await this.shelf.get(ref);
    const centreS = arrival?.peakS ?? 0;
    const levelDb =
      'cycles' in window
        ? windowedLevelDb(impulse, this.grid, {
            centreS,
            cycles: window.cycles,
            longestS: LONGEST_WINDOW_S,
          })
        : powerOnGrid(windowImpulse(impulse, { centreS, ...window }), this.grid).map(dbOfPower);
    return this.seen(levelDb, corrected ? calibration : null);
  }

  /** Energy over time and frequency, times from the arrival. */
  async decay(
    ref: TraceRef,
    { lengthS, ...rest }: Omit<DecayMapRequest, 'fromS' | 'toS'> & { lengthS: number },
  ): Promise<DecayMap> {
    const { impulse, arrival } = await this.shelf.get(ref);
    const fromS = arrival?.onsetS ?? 0;
    const map = decayMap(impulse, { ...rest, fromS, toS: fromS + lengthS });
    return { ...map, timeS: map.timeS.map((t) => t - fromS) };
  }

  async resonances(refs: TraceRef[], band: { fromHz: number; toHz: number }): Promise<Resonance[]> {
    return findResonances(this.grid, await this.shelf.all(refs), band);
  }

  async reflections(ref: TraceRef, speedOfSound: number): Promise<Reflection[]> {
    return findReflections((await this.shelf.get(ref)).impulse, speedOfSound);
  }

  /** Figures of ISO 3382-1 of each trace, octave by octave. */
  async figures(refs: ViewedRef[]): Promise<(OctaveFigures[] | null)[]> {
    const traces = await this.shelf.all(refs);
    return traces.map(({ impulse }, i) => {
      const { decayEnd } = refs[i]!;
      return roomFigures(impulse, FIGURE_OCTAVES, ({ centre }) =>
        centre < SPLIT_HZ ? (decayEnd?.lowS ?? null) : (decayEnd?.highS ?? null),
      );
    });
  }

  async speech(refs: TraceRef[], levels: SpeechAndNoise | null): Promise<(number | null)[]> {
    return (await this.shelf.all(refs)).map(({ impulse }) => speechTransmission(impulse, levels));
  }

  private seen(levelDb: Float64Array, calibration: MicrophoneError | null): Float64Array {
    return calibration
      ? lessCalibration(levelDb.map(powerOfDb), calibration, this.grid).map(dbOfPower)
      : levelDb;
  }
}
