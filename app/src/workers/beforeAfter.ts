import { sectionBiquad, throughChain, type Section } from '@pebble-hall/core/correct';
import { decayMap, stepResponse, unwrappedPhase } from '@pebble-hall/core/look';
import { findArrival } from '@pebble-hall/core/measure';
import type { ImpulseResponse } from '@pebble-hall/core/signal';

/** Time curves: milliseconds from the arrival, so many apart; largest value of the one as found is 1. */
export interface TimeCurve {
  fromMs: number;
  stepMs: number;
  before: Float32Array;
  after: Float32Array;
}

export interface BeforeAfter {
  /** degrees on the grid, arrival taken off, not wrapped */
  phase: { before: Float64Array; after: Float64Array };
  impulse: TimeCurve;
  step: TimeCurve;
  /** level of what still sounds after a time, dB re the loudest as found, on frequencies 1/6 octave apart */
  decay: { frequency: Float64Array; afterS: number[]; before: Float64Array[]; after: Float64Array[] };
  /** the filter's own impulse response, from 10 ms ahead of its main tap */
  filter: { fromMs: number; stepMs: number; values: Float32Array } | null;
}

const WINDOW = { fromMs: -12, toMs: 60 };
const DECAY = { fromHz: 20, toHz: 500, slicesS: [0, 0.1, 0.2, 0.3] };
const LEAST_DB = -60;

/** What a filter does to a response in phase and time. */
export function beforeAndAfter(
  impulse: ImpulseResponse,
  fir: Float32Array | null,
  sections: Section[],
  rate: number,
  grid: Float64Array,
): BeforeAfter {
  const samples = throughChain(impulse.samples, {
    fir,
    sections: sections.map((s) => sectionBiquad(s, rate)),
    trimDb: 0,
  });
  const after: ImpulseResponse = { ...impulse, samples };
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
      before: unwrappedPhase(impulse, grid, arrivals[0]),
      after: unwrappedPhase(after, grid, arrivals[1]),
    },
    impulse: curve(impulse, after, peak),
    step: curve(steps[0], steps[1], most),
    decay: decayOf(impulse, after, arrivals),
    filter: fir && filterCurve(fir, rate),
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

function filterCurve(fir: Float32Array, rate: number): NonNullable<BeforeAfter['filter']> {
  let main = 0;
  fir.forEach((v, i) => (main = Math.abs(v) > Math.abs(fir[main]!) ? i : main));
  const from = main - Math.round((-WINDOW.fromMs / 1000) * rate);
  const values = Float32Array.from(
    { length: Math.round(((WINDOW.toMs - WINDOW.fromMs) / 1000) * rate) },
    (_, i) => (fir[from + i] ?? 0) / Math.abs(fir[main]!),
  );
  return { fromMs: WINDOW.fromMs, stepMs: 1000 / rate, values };
}
