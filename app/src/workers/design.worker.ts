import {
  designChannel,
  exactChannel,
  excessPhase,
  foundChannel,
  sectionBiquad,
  type ChannelDesign,
  type ChannelRequest,
  type ExactChannel,
  type FilterChoice,
  type FoundChannel,
  type ProcessorLimits,
  type Section,
} from '@pebble-hall/core/correct';
import {
  findArrival,
  findPolarity,
  fineSpectrum,
  powerOnGrid,
  responseOnGrid,
  type SampledResponse,
} from '@pebble-hall/core/measure';
import { plainOutput, predictOutput, sumImpulses, type OutputSettings } from '@pebble-hall/core/output';
import { averageMovement, type AverageMovement } from '@pebble-hall/core/spots';
import {
  bestJoint,
  complexOnGrid,
  crossoverBiquads,
  filteredCurve,
  jointOf,
  seatDeviation,
  subsTogether,
  sumOfSubs,
  type ComplexCurve,
  type CrossoverFilter,
  type Joint,
  type JointSetting,
  type SubLimits,
  type SubSetting,
  type SubsTogether,
} from '@pebble-hall/core/together';
import {
  dbOfPower,
  gainOfDb,
  interpolateLog,
  logGrid,
  powerOfDb,
  smoothLevels,
  type ImpulseResponse,
} from '@pebble-hall/core/signal';
import { expose } from 'comlink';
import { beforeAndAfter, type BeforeAfter } from './beforeAfter';

const grid = logGrid();
/** Frequencies at which subwoofers are brought together, and at which joints are judged. */
const seatGrid = logGrid(20, 80, 24);
const jointGrid = logGrid(25, 400, 24);

export interface TraceToAdd {
  key: string;
  samples: Float32Array;
  rate: number;
  zero: number;
  calibration: { frequency: number[]; levelDb: number[] } | null;
}

/** One subwoofer's share of a sum. */
export interface SumPart {
  key: string;
  setting: SubSetting;
}

/** A trace seen so far: on the grid, microphone corrected. */
interface Known {
  impulse: ImpulseResponse;
  calibration: TraceToAdd['calibration'];
  power: Float64Array;
  excess: Float64Array;
  joint: ComplexCurve;
}
const known = new Map<string, Known>();

/** Power less what the microphone adds to it. */
function corrected(power: Float64Array, calibration: TraceToAdd['calibration']): Float64Array {
  if (!calibration) return power;
  const { frequency, levelDb } = calibration;
  const error = interpolateLog(Float64Array.from(frequency), Float64Array.from(levelDb), grid);
  return power.map((p, i) => p / powerOfDb(error[i]!));
}

function keep(key: string, impulse: ImpulseResponse, calibration: TraceToAdd['calibration']): void {
  const spectrum = fineSpectrum(impulse);
  known.set(key, {
    impulse,
    calibration,
    power: corrected(powerOnGrid(impulse, grid, 48, spectrum), calibration),
    excess: excessPhase(impulse, grid, spectrum),
    joint: complexOnGrid(impulse, jointGrid, spectrum),
  });
}

const traceAt = (key: string): Known => {
  const found = known.get(key);
  if (!found) throw new Error(`The trace ${key} is not there.`);
  return found;
};
const powerOf = (key: string) => traceAt(key).power;

/** The channels designed last, as found: they stay while a handle moves. */
const founds = new Map<string, { spots: string; found: FoundChannel }>();

function foundOf({ id, spots, weights, leftOut }: ChannelRequest): FoundChannel {
  const wanted = [...spots, '', ...leftOut, '', ...(weights ?? [])].join('\n');
  const kept = founds.get(id);
  if (kept?.spots === wanted) return kept.found;
  const excess = spots.map((key) => traceAt(key).excess);
  const found = foundChannel(grid, spots.map(powerOf), leftOut.map(powerOf), weights, excess);
  founds.set(id, { spots: wanted, found });
  return found;
}

/** What the exact filter of a channel is asked for with. */
export interface ExactRequest {
  request: ChannelRequest;
  choice: FilterChoice;
  processor: ProcessorLimits;
  /** sections that stand as they are; null to fit them */
  byHand: Section[] | null;
}

/** What one channel is at the home spot. */
export interface AtHome {
  /** level within its span against the target's shape, after the correction, dB */
  levelDb: number;
  arrivalS: number | null;
}

/** What stands between the interface and a channel or the subwoofers, beside the crossover that is chosen. */
export interface JointSide {
  fir: Float32Array | null;
  sections: Section[];
  gainDb: number;
  delayS: number;
  inverted: boolean;
  /** what the processor had while it was measured, and is replaced */
  before: CrossoverFilter | null;
}

/** Channel and subwoofers, by their trace keys at every spot. */
export interface JointRequest {
  main: string[];
  mainSide: JointSide;
  subs: SumPart[][];
  subSide: JointSide;
  rate: number;
}

const sumCurve = (parts: SumPart[], rate: number): ComplexCurve =>
  sumOfSubs(
    { frequency: jointGrid, rate, at: parts.map((p) => [traceAt(p.key).joint]) },
    parts.map((p) => p.setting),
  )[0]!;

/** What a side does to a curve: its filter, gain, delay, polarity, and the crossover taken off that it had. */
function sideCurve(side: JointSide, way: 'highpass' | 'lowpass', rate: number): ComplexCurve {
  const { fir, sections, gainDb, delayS, inverted, before } = side;
  const start = fir
    ? complexOnGrid({ samples: fir, rate, zero: 0 }, jointGrid)
    : { re: jointGrid.map(() => 1), im: jointGrid.map(() => 0) };
  const done = filteredCurve(
    start,
    jointGrid,
    sections.map((s) => sectionBiquad(s, rate)),
    rate,
    delayS,
    inverted ? -1 : 1,
  );
  const flat = { re: jointGrid.map(() => 1), im: jointGrid.map(() => 0) };
  const was = filteredCurve(flat, jointGrid, crossoverBiquads(way, before, rate), rate);
  const gain = gainOfDb(gainDb);
  const least = gainOfDb(-30) ** 2;
  return {
    re: done.re.map((v, k) => {
      const power = Math.max(least, was.re[k]! ** 2 + was.im[k]! ** 2);
      return (gain * (v * was.re[k]! + done.im[k]! * was.im[k]!)) / power;
    }),
    im: done.im.map((v, k) => {
      const power = Math.max(least, was.re[k]! ** 2 + was.im[k]! ** 2);
      return (gain * (v * was.re[k]! - done.re[k]! * was.im[k]!)) / power;
    }),
  };
}

const times = (a: ComplexCurve, b: ComplexCurve): ComplexCurve => ({
  re: a.re.map((v, k) => v * b.re[k]! - a.im[k]! * b.im[k]!),
  im: a.im.map((v, k) => v * b.re[k]! + a.re[k]! * b.im[k]!),
});

const curvesOf = ({ main, mainSide, subs, subSide, rate }: JointRequest) => {
  const [onMain, onSubs] = [sideCurve(mainSide, 'highpass', rate), sideCurve(subSide, 'lowpass', rate)];
  return {
    main: main.map((key) => times(traceAt(key).joint, onMain)),
    subs: subs.map((parts) => times(sumCurve(parts, rate), onSubs)),
  };
};

const api = {
  has: (keys: string[]): boolean[] => keys.map((key) => known.has(key)),
  add: ({ key, samples, rate, zero, calibration }: TraceToAdd): void =>
    keep(key, { samples, rate, zero }, calibration),
  /** Keeps what several traces make together as one. */
  addSum: (key: string, parts: SumPart[]): void => {
    const traces = parts.map((p) => traceAt(p.key));
    const impulse = sumImpulses(
      traces.map(({ impulse }, i) => ({ impulse, settings: settingsOf(parts[i]!.setting) })),
    );
    keep(key, { ...impulse, samples: Float32Array.from(impulse.samples) }, traces[0]!.calibration);
  },
  /** Level of one trace on the grid, dB. */
  level: (key: string): Float64Array => powerOf(key).map(dbOfPower),
  /** Level that a trace becomes when its output is set otherwise, computed from its samples; dB on the grid. */
  predicted: (
    trace: TraceToAdd,
    before: OutputSettings,
    after: OutputSettings,
    fir: Float32Array | null,
  ): Float64Array => {
    const impulse = predictOutput(trace, before, after, fir, trace.rate);
    return corrected(powerOnGrid(impulse, grid), trace.calibration).map(dbOfPower);
  },
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
  exact: ({ request, choice, processor, byHand }: ExactRequest): ExactChannel => {
    const found = foundOf(request);
    const design = designChannel(grid, request, found);
    return exactChannel(grid, design, request, choice, processor, found.shared, byHand);
  },
  /** What a filter does to a trace in phase and time. */
  beforeAfter: (key: string, fir: Float32Array | null, sections: Section[], rate: number): BeforeAfter =>
    beforeAndAfter(traceAt(key).impulse, fir, sections, rate, grid),
  atHome: (request: ChannelRequest, key: string, levelDb: Float64Array): AtHome => {
    const { impulse, power } = traceAt(key);
    const { targetDb, targetOffsetDb, span } = designChannel(grid, request, foundOf(request));
    const levels = smoothLevels(
      grid,
      power.map((p, i) => dbOfPower(p) + levelDb[i]!),
      3,
    );
    const off = [...levels].flatMap((v, i) =>
      grid[i]! >= span.from && grid[i]! <= span.to ? [v - (targetDb[i]! - targetOffsetDb)] : [],
    );
    const arrival = findArrival(impulse);
    const polarity = arrival && findPolarity(impulse, arrival.onsetS, span);
    return { levelDb: off.reduce((a, b) => a + b, 0) / off.length, arrivalS: polarity?.arrivalS ?? null };
  },
  /** Brings subwoofers together: `keys[sub][spot]`. */
  subs: (keys: string[][], limits: SubLimits, rate: number): SubsTogether =>
    subsTogether({ frequency: seatGrid, rate, at: seatCurves(keys) }, limits),
  /** How alike the seats are with given settings; dB. */
  deviation: (keys: string[][], settings: SubSetting[], rate: number): number =>
    seatDeviation(sumOfSubs({ frequency: seatGrid, rate, at: seatCurves(keys) }, settings)).deviationDb,
  joint: (
    request: JointRequest,
    { highPass, lowPass, subDelayS, subInverted }: JointSetting,
  ): Joint & JointCurves => {
    const { main, subs } = curvesOf(request);
    const { rate } = request;
    const high = main.map((c) =>
      filteredCurve(c, jointGrid, crossoverBiquads('highpass', highPass, rate), rate),
    );
    const low = subs.map((c) =>
      filteredCurve(
        c,
        jointGrid,
        crossoverBiquads('lowpass', lowPass, rate),
        rate,
        subDelayS,
        subInverted ? -1 : 1,
      ),
    );
    return { ...jointOf(high, low, jointGrid), ...jointCurves(high, low) };
  },
  bestJoint: (request: JointRequest, offered: Pick<JointSetting, 'highPass' | 'lowPass'>[]) => {
    const { main, subs } = curvesOf(request);
    return bestJoint(main, subs, jointGrid, offered, request.rate);
  },
};

/** Power averages over the spots, dB on `frequency`. */
export interface JointCurves {
  frequency: Float64Array;
  mainDb: Float64Array;
  subsDb: Float64Array;
  sumDb: Float64Array;
}

function jointCurves(main: ComplexCurve[], subs: ComplexCurve[]): JointCurves {
  const average = (at: (s: number, k: number) => [number, number]) =>
    jointGrid.map((_, k) => {
      let sum = 0;
      for (let s = 0; s < main.length; s++) {
        const [re, im] = at(s, k);
        sum += (re * re + im * im) / main.length;
      }
      return dbOfPower(sum);
    });
  return {
    frequency: jointGrid,
    mainDb: average((s, k) => [main[s]!.re[k]!, main[s]!.im[k]!]),
    subsDb: average((s, k) => [subs[s]!.re[k]!, subs[s]!.im[k]!]),
    sumDb: average((s, k) => [main[s]!.re[k]! + subs[s]!.re[k]!, main[s]!.im[k]! + subs[s]!.im[k]!]),
  };
}

const seatCurves = (keys: string[][]): ComplexCurve[][] =>
  keys.map((spots) => spots.map((key) => complexOnGrid(traceAt(key).impulse, seatGrid)));

const settingsOf = ({ gainDb, delayS, inverted, sections }: SubSetting): OutputSettings => ({
  ...plainOutput(),
  trimDb: gainDb,
  delayMs: 1000 * delayS,
  inverted,
  sections,
});

export type DesignApi = typeof api;
expose(api);
