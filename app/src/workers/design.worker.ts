import {
  designChannel,
  exactChannel,
  excessPhase,
  foundChannel,
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
import {
  buildOutputs,
  plainOutput,
  predictOutput,
  sumImpulses,
  throughFeed,
  type BassFeed,
  type BuildOptions,
  type BuiltOutputs,
  type OutputCorrection,
  type OutputSettings,
} from '@pebble-hall/core/processing';
import { averageMovement, type AverageMovement } from '@pebble-hall/core/spots';
import {
  averageLevel,
  bestJoint,
  complexOnGrid,
  crossoverBiquads,
  fedCurve,
  filteredCurve,
  jointOf,
  levelApart,
  plusCurve,
  seatDeviation,
  sideCurve,
  subsTogether,
  sumOfSubs,
  timesCurve,
  type ComplexCurve,
  type Joint,
  type JointSetting,
  type JointSide,
  type SubLimits,
  type SubSetting,
  type SubsTogether,
} from '@pebble-hall/core/alignment';
import {
  dbOfPower,
  interpolateLog,
  logGrid,
  powerOfDb,
  smoothLevels,
  type ImpulseResponse,
} from '@pebble-hall/core/signal';
import { expose } from 'comlink';
import { beforeAndAfter, type BeforeAfter } from '@pebble-hall/core/views';

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

/** One loudspeaker on the way of a sound: as measured, set otherwise, and what it is fed through. */
export interface HeardWay {
  trace: TraceToAdd;
  before: OutputSettings;
  after: OutputSettings;
  fir: Float32Array | null;
  feed: BassFeed | null;
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

/** One loudspeaker of a joint: its trace keys, spot by spot, and what stands ahead of it. */
export interface JointPart {
  keys: string[];
  side: JointSide;
}

/** A channel and all subwoofers at the same spots. */
export interface JointRequest {
  main: JointPart;
  subs: JointPart[];
  rate: number;
}

function curvesOf({ main, subs, rate }: JointRequest) {
  const played = ({ keys, side }: JointPart, way: 'highpass' | 'lowpass') => {
    const curve = sideCurve(side, way, jointGrid, rate);
    return keys.map((key) => timesCurve(traceAt(key).joint, curve));
  };
  const each = subs.map((part) => played(part, 'lowpass'));
  return {
    main: played(main, 'highpass'),
    subs: main.keys.map((_, spot) => each.map((at) => at[spot]!).reduce(plusCurve)),
  };
}

/** A joint, and how its crossovers are set. */
export interface JointAsked {
  request: JointRequest;
  setting: JointSetting;
}

/** The channel through its high-pass, the subwoofers as they are, and as they play its bass. */
function crossedCurves(request: JointRequest, { highPass, lowPass, subDelayS, subInverted }: JointSetting) {
  const { main, subs } = curvesOf(request);
  const { rate } = request;
  const [highs, lows] = [
    crossoverBiquads('highpass', highPass, rate),
    crossoverBiquads('lowpass', lowPass, rate),
  ];
  return {
    subs,
    high: main.map((c) => filteredCurve(c, jointGrid, highs, rate)),
    fed: subs.map((c) => filteredCurve(c, jointGrid, lows, rate, subDelayS, subInverted ? -1 : 1)),
  };
}

const api = {
  /** This program, by the name that the build gave it: what another one made is not ours. Null where it has none. */
  madeBy: (): string | null => (import.meta.env.PROD ? self.location.pathname : null),
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
  /** Level of what several ways of one sound make together at the spot, each predicted from its samples; dB on the grid. */
  heard: (ways: HeardWay[]): Float64Array => {
    const parts = ways.map(({ trace, before, after, fir, feed }) => {
      const own = predictOutput(trace, before, after, fir, trace.rate);
      return { impulse: feed ? throughFeed(own, feed) : own, settings: plainOutput() };
    });
    return corrected(powerOnGrid(sumImpulses(parts), grid), ways[0]!.trace.calibration).map(dbOfPower);
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
  /** All outputs of a processor for a correction, and what its headroom guard takes. */
  build: (base: OutputSettings[], channels: OutputCorrection[], options: BuildOptions): BuiltOutputs =>
    buildOutputs(base, channels, options),
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
  /** A joint as it is set, and what the low-frequency channel makes of the subwoofers where there is one. */
  joint: ({ request, setting }: JointAsked, low: BassFeed | null): JointRead => {
    const { rate } = request;
    const { high, subs, fed } = crossedCurves(request, setting);
    const together = high.map((c, i) => plusCurve(c, fed[i]!));
    const lowPlayed = low && subs.map((c) => fedCurve(c, jointGrid, low, rate));
    return {
      ...jointOf(high, fed, jointGrid),
      frequency: jointGrid,
      mainDb: averageLevel(high),
      subsDb: averageLevel(fed),
      sumDb: averageLevel(together),
      lowDb: lowPlayed && averageLevel(lowPlayed),
      lowAboveDb: lowPlayed && levelApart(lowPlayed, together, jointGrid, LOW_BAND),
    };
  },
  /**
   * The delay and polarity that suit all channels asked for, at all their spots, with the crossover of those offered that
   * suits them best; null leaves each channel its own.
   */
  bestJoint: (asked: JointAsked[], offered: Pick<JointSetting, 'highPass' | 'lowPass'>[] | null) => {
    const curves = asked.map(({ request, setting }) => {
      if (offered) return curvesOf(request);
      const { high, fed } = crossedCurves(request, setting);
      return { main: high, subs: fed };
    });
    const [main, subs] = [curves.flatMap((c) => c.main), curves.flatMap((c) => c.subs)];
    return bestJoint(
      main,
      subs,
      jointGrid,
      offered ?? [{ highPass: null, lowPass: null }],
      asked[0]!.request.rate,
    );
  },
};

/** Where the low-frequency channel is held against a full-range one, Hz. */
export const LOW_BAND = { from: 30, to: 80 };

/** A joint with its power averages over the spots, dB on `frequency`. */
export interface JointRead extends Joint {
  frequency: Float64Array;
  mainDb: Float64Array;
  subsDb: Float64Array;
  sumDb: Float64Array;
  /** null where there is no low-frequency channel */
  lowDb: Float64Array | null;
  /** mean level of the low-frequency channel above the channel and its bass in `LOW_BAND`, dB */
  lowAboveDb: number | null;
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
