import QuickLRU from 'quick-lru';
import {
  alignCrossover,
  highPassed,
  lowPassed,
  readCrossover,
  seatDeviation,
  sidesOf,
  subsTogether,
  sumOfSubs,
  type CrossoverAlignment,
  type CrossoverParts,
  type CrossoverReading,
  type CrossoverSetting,
  type SubLimits,
  type SubsTogether,
} from '../alignment/index.js';
import {
  channelAtHome,
  designChannel,
  exactChannel,
  measuredChannel,
  lessCalibration,
  seeTrace,
  type AtHome,
  type ChannelDesign,
  type ChannelGoal,
  type ExactChannel,
  type FilterChoice,
  type MeasuredChannel,
  type SeenTrace,
} from '../correct/index.js';
import { responseOnGrid, type SampledResponse } from '../measure/index.js';
import { responseAt, type Section, type SignalPath } from '../path/index.js';
import {
  buildOutputs,
  heardLevel,
  type BassFeed,
  type BuildOptions,
  type BuiltOutputs,
  type OutputCorrection,
  type OutputSettings,
  type PlayedOutput,
  type ProcessorLimits,
  type SubSetting,
} from '../processing/index.js';
import { dbOfPower, logGrid, powerOfDb, type ComplexTrace } from '../signal/index.js';
import { averageMovement, type AverageMovement } from '../spots/index.js';
import { beforeAndAfter, type BeforeAfter } from '../views/index.js';
import { TraceShelf, type LoadImpulse, type ShelvedTrace } from './traceShelf.js';
import { sourceKey, type TraceRef, type TraceSource } from './traceSource.js';

/** What a channel is corrected from, and towards what. */
export interface ChannelRequest extends ChannelGoal {
  /** of the spots that are averaged, and of those left out, which only judge */
  spots: TraceSource[];
  /** one for each spot that is averaged */
  weights: number[];
  leftOut: TraceSource[];
}

export interface ExactRequest {
  request: ChannelRequest;
  choice: FilterChoice;
  processor: ProcessorLimits;
  /** sections that stand as they are; null to fit them */
  byHand: Section[] | null;
}

/** A loudspeaker of a crossover by its traces at the points. */
export interface CrossoverSide {
  traces: TraceSource[];
  path: SignalPath;
  measuredThrough: SignalPath | null;
}

export interface CrossoverRequest {
  main: CrossoverSide;
  subs: CrossoverSide[];
  /** one for each point; all alike when not given */
  weights?: number[];
}

/** One output that plays a sound, by its trace. */
export interface HeardOutput extends Omit<PlayedOutput, 'impulse'> {
  trace: TraceRef;
}

/** Told how far a job is, 0 to 1, and asked whether it is still wanted: what it returns is waited for. */
export type OnProgress = (share: number) => void | Promise<void>;

/** Frequencies over which subwoofers even out the seats. */
const SEAT_GRID = logGrid(20, 80, 24);
const MOST_FOUND = 64;

/**
 * All that is designed and predicted from stored traces, which it loads as they are asked for and keeps at hand.
 * Every call stands for itself, so calls may overlap.
 */
export class DesignDesk {
  private readonly grid = logGrid();
  private readonly shelf: TraceShelf<SeenTrace>;
  private readonly raw: TraceShelf<ShelvedTrace>;
  /** averages stay while a handle moves */
  private readonly found = new QuickLRU<string, Promise<MeasuredChannel>>({ maxSize: MOST_FOUND });

  constructor(load: LoadImpulse) {
    this.shelf = new TraceShelf(load, ({ impulse, calibration }) =>
      seeTrace(impulse, calibration, this.grid),
    );
    this.raw = new TraceShelf(load, (trace) => trace);
  }

  /** Levels of traces on the grid, microphone corrected, dB. */
  async levels(sources: TraceSource[]): Promise<Float64Array[]> {
    return (await this.shelf.all(sources)).map(({ power }) => power.map(dbOfPower));
  }

  /** Level and phase of a trace on the grid, microphone corrected. */
  async response(source: TraceRef): Promise<SampledResponse> {
    const { impulse, calibration } = await this.raw.get(source);
    const response = responseOnGrid(impulse, this.grid);
    const power = lessCalibration(response.levelDb.map(powerOfDb), calibration, this.grid);
    return { ...response, levelDb: power.map(dbOfPower) };
  }

  /** Level of what several outputs make of one sound at a point, dB on the grid. */
  async heard(outputs: HeardOutput[]): Promise<Float64Array> {
    const traces = await this.raw.all(outputs.map((o) => o.trace));
    const power = heardLevel(
      outputs.map((o, i) => ({ ...o, impulse: traces[i]!.impulse })),
      this.grid,
    );
    return lessCalibration(power, traces[0]!.calibration, this.grid).map(dbOfPower);
  }

  /** How far the average of some traces still moves when one is left out. */
  async movement(
    sources: TraceSource[],
    band: { from: number; to: number },
  ): Promise<AverageMovement | null> {
    const traces = await this.shelf.all(sources);
    return averageMovement(
      this.grid,
      traces.map((t) => t.power),
      band,
    );
  }

  /** Designs of several channels. @param onProgress told after each trace that had to be loaded or channel designed */
  async design(requests: ChannelRequest[], onProgress: OnProgress = () => {}): Promise<ChannelDesign[]> {
    const designs: ChannelDesign[] = [];
    for (const [i, request] of requests.entries()) {
      const found = await this.foundOf(request);
      designs.push(designChannel(this.grid, request, found));
      await onProgress((i + 1) / requests.length);
    }
    return designs;
  }

  async exact({ request, choice, processor, byHand }: ExactRequest): Promise<ExactChannel> {
    const found = await this.foundOf(request);
    const design = designChannel(this.grid, request, found);
    return exactChannel(this.grid, design, request, choice, processor, found.shared, byHand);
  }

  /** All outputs of a processor for a correction, and what its headroom guard takes. */
  build(base: OutputSettings[], channels: OutputCorrection[], options: BuildOptions): BuiltOutputs {
    return buildOutputs(base, channels, options);
  }

  /** What a filter does to a trace in phase and time. */
  async beforeAfter(
    source: TraceSource,
    fir: Float32Array | null,
    sections: Section[],
    rate: number,
  ): Promise<BeforeAfter> {
    const { impulse } = await this.shelf.get(source);
    return beforeAndAfter(impulse, fir, sections, rate, this.grid);
  }

  async atHome(request: ChannelRequest, source: TraceSource, filterDb: Float64Array): Promise<AtHome> {
    const design = designChannel(this.grid, request, await this.foundOf(request));
    return channelAtHome(this.grid, design, await this.shelf.get(source), filterDb);
  }

  /** Evens out the seats. @param traces `[sub][spot]` */
  async evenSeats(traces: TraceSource[][], limits: SubLimits, rate: number): Promise<SubsTogether> {
    return subsTogether({ rate, at: await this.seatTraces(traces) }, limits);
  }

  /** How far the seats deviate from each other with each of some settings, dB. */
  async deviations(traces: TraceSource[][], settings: SubSetting[][], rate: number): Promise<number[]> {
    const at = await this.seatTraces(traces);
    return settings.map((s) => seatDeviation(sumOfSubs({ rate, at }, s)).deviationDb);
  }

  /** A channel and its bass as their crossover is set, and the low-frequency channel where there is one. */
  async crossover(
    request: CrossoverRequest,
    setting: CrossoverSetting,
    low: BassFeed | null,
  ): Promise<CrossoverReading> {
    return readCrossover(await this.parts(request), setting, low);
  }

  /**
   * Delay and polarity of the subwoofers that suit all channels asked for at all their points, with the crossover of those
   * offered that suits them best; null leaves each channel its own.
   */
  async alignCrossover(
    asked: { request: CrossoverRequest; setting: CrossoverSetting }[],
    offered: Pick<CrossoverSetting, 'highPass' | 'lowPass'>[] | null,
    mostDelayS?: number,
  ): Promise<CrossoverAlignment> {
    const { rate } = asked[0]!.request.main.path;
    const sides = await Promise.all(
      asked.map(async ({ request, setting }) => {
        const { main, subs } = sidesOf(await this.parts(request));
        return offered
          ? { main, subs }
          : { main: highPassed(main, setting, rate), subs: lowPassed(subs, setting, rate) };
      }),
    );
    return alignCrossover(
      sides.flatMap((s) => s.main),
      sides.flatMap((s) => s.subs),
      offered ?? [{ highPass: null, lowPass: null }],
      rate,
      mostDelayS,
    );
  }

  private foundOf({ spots, weights, leftOut }: ChannelRequest): Promise<MeasuredChannel> {
    const key = [spots.map(sourceKey).join(), leftOut.map(sourceKey).join(), weights.join()].join('\n');
    const known = this.found.get(key);
    if (known) return known;
    const found = Promise.all([this.shelf.all(spots), this.shelf.all(leftOut)]).then(([averaged, out]) =>
      measuredChannel(
        this.grid,
        averaged.map((t) => t.power),
        out.map((t) => t.power),
        weights,
        averaged.map((t) => t.excess),
      ),
    );
    this.found.set(key, found);
    found.catch(() => this.found.delete(key));
    return found;
  }

  private async seatTraces(traces: TraceSource[][]): Promise<ComplexTrace[][]> {
    return Promise.all(
      traces.map(async (spots) =>
        (await this.shelf.all(spots)).map(({ impulse }) => responseAt(impulse, SEAT_GRID)),
      ),
    );
  }

  private async parts({ main, subs, weights }: CrossoverRequest): Promise<CrossoverParts> {
    const part = async ({ traces, path, measuredThrough }: CrossoverSide) => ({
      traces: (await this.shelf.all(traces)).map((t) => t.lows),
      path,
      measuredThrough,
    });
    return { main: await part(main), subs: await Promise.all(subs.map(part)), weights };
  }
}
