import { sectionBiquad, signalPath, throughFilters, type Section } from '../path/index.js';
import { mainTap } from '../correct/index.js';
import { findArrival } from '../measure/index.js';
import { fftSizeFor, realFft, type ImpulseResponse } from '../signal/index.js';
import { decayMap } from './decayMap.js';
import { windowedPhaseDeg } from './frequencyWindow.js';
import { stepResponse } from './timeCurves.js';

/** Time curves: milliseconds from the arrival, so many apart; largest value of the one as found is 1. */
export interface TimeCurve {
  fromMs: number;
  stepMs: number;
  before: Float32Array;
  after: Float32Array;
}

export interface BeforeAfter {
  /** degrees on the grid, -180 to 180, within a few periods of the arrival (of the filter: of its main tap), which is time zero */
  phase: { before: Float64Array; after: Float64Array; filter: Float64Array };
  impulse: TimeCurve;
  step: TimeCurve;
  /** level of what still sounds after a time, dB re the loudest as found, on frequencies 1/6 octave apart */
  decay: { frequency: Float64Array; afterS: number[]; before: Float64Array[]; after: Float64Array[] };
  /** the filter's own impulse response about its main tap, which is 1 */
  filter: { fromMs: number; stepMs: number; values: Float32Array };
}

const WINDOW = { fromMs: -12, toMs: 60 };
const DECAY = { fromHz: 20, toHz: 500, slicesS: [0, 0.1, 0.2, 0.3] };
/** The room turns phase many times over; within so many periods it is that of the loudspeaker and what comes soon after. */
const PHASE_WINDOW = { cycles: 3, longestS: 0.15 };
/** Bins of a filter's phase, 0.2 Hz apart at 48 kHz. */
const FINE_SIZE = 262144;
const LEAST_DB = -60;
/** Sections have rung out after so many samples. */
const FILTER_TAIL = 32768;

/**
 * What a filter does to a response in phase and time: FIR and sections, one after the other.
 * @param fir null without one
 * @param grid frequencies at which phases are wanted, Hz
 */
export function beforeAndAfter(
  impulse: ImpulseResponse,
  fir: Float32Array | null,
  sections: Section[],
  rate: number,
  grid: Float64Array,
): BeforeAfter {
  const path = signalPath(rate, { fir, filters: sections.map((s) => sectionBiquad(s, rate)) });
  const after: ImpulseResponse = { ...impulse, samples: throughFilters(impulse.samples, path) };
  const unit = new Float64Array(FILTER_TAIL);
  unit[0] = 1;
  const filter = throughFilters(unit, path);
  const main = mainTap(fir ?? unit);
  const arrivals = [impulse, after].map((r) => findArrival(r)?.peakS ?? 0) as [number, number];
  const peak = Math.abs(findArrival(impulse)?.peak ?? 1);
  const cut = ({ samples: all, zero }: ImpulseResponse, arrivalS: number, scale: number) => {
    const from = zero + Math.round((arrivalS + WINDOW.fromMs / 1000) * rate);
    return Float32Array.from(
      { length: Math.round(((WINDOW.toMs - WINDOW.fromMs) / 1000) * rate) },
      (_, i) => (all[from + i] ?? 0) / scale,
    );
  };
  const curve = (before: ImpulseResponse, changed: ImpulseResponse, scale: number): TimeCurve => ({
    fromMs: WINDOW.fromMs,
    stepMs: 1000 / rate,
    before: cut(before, arrivals[0], scale),
    after: cut(changed, arrivals[1], scale),
  });
  const steps = [impulse, after].map((r) => ({ ...r, samples: stepResponse(r) })) as [
    ImpulseResponse,
    ImpulseResponse,
  ];
  const most = Float64Array.from(steps[0].samples).reduce((a, b) => Math.max(a, Math.abs(b)), 1e-12);
  return {
    phase: {
      before: windowedPhaseDeg(impulse, grid, { centreS: arrivals[0], ...PHASE_WINDOW }),
      after: windowedPhaseDeg(after, grid, { centreS: arrivals[1], ...PHASE_WINDOW }),
      filter: phaseOf(filter, main, grid, rate),
    },
    impulse: curve(impulse, after, peak),
    step: curve(steps[0], steps[1], most),
    decay: decayOf(impulse, after, arrivals),
    filter: filterCurve(filter, main, rate),
  };
}

function decayOf(
  before: ImpulseResponse,
  after: ImpulseResponse,
  arrivals: [number, number],
): BeforeAfter['decay'] {
  const request = (arrivalS: number) => ({
    fromHz: DECAY.fromHz,
    toHz: DECAY.toHz,
    fromS: arrivalS,
    toS: arrivalS + 0.3001,
    stepS: 0.1,
  });
  const maps = [before, after].map((r, i) => decayMap(r, request(arrivals[i]!)));
  // a map is told against its own loudest cell
  const shift = maps[1]!.loudestDb - maps[0]!.loudestDb;
  const slice = (map: (typeof maps)[number], index: number, by: number) =>
    Float64Array.from(map.frequency, (_, row) =>
      Math.max(LEAST_DB, map.levelDb[row * map.timeS.length + index]! + by),
    );
  return {
    frequency: maps[0]!.frequency,
    afterS: DECAY.slicesS,
    before: DECAY.slicesS.map((_, i) => slice(maps[0]!, i, 0)),
    after: DECAY.slicesS.map((_, i) => slice(maps[1]!, i, shift)),
  };
}

/** Phase of a filter, its main tap as time zero. */
function phaseOf(filter: Float64Array, main: number, grid: Float64Array, rate: number): Float64Array {
  const size = fftSizeFor(Math.max(filter.length, FINE_SIZE));
  const { re, im } = realFft(filter, size);
  return grid.map((f) => {
    const k = Math.round((f * size) / rate);
    const angle = Math.atan2(im[k]!, re[k]!) + (2 * Math.PI * k * main) / size;
    return (Math.atan2(Math.sin(angle), Math.cos(angle)) * 180) / Math.PI;
  });
}

function filterCurve(filter: Float64Array, main: number, rate: number): BeforeAfter['filter'] {
  const from = main + Math.round((WINDOW.fromMs / 1000) * rate);
  const values = Float32Array.from(
    { length: Math.round(((WINDOW.toMs - WINDOW.fromMs) / 1000) * rate) },
    (_, i) => (filter[from + i] ?? 0) / Math.abs(filter[main]!),
  );
  return { fromMs: WINDOW.fromMs, stepMs: 1000 / rate, values };
}
