import { SoundLevelMeter, WEIGHTINGS, type WeightedReading, type Weighting } from '../level/index.js';
import { needAbove } from '../limits/index.js';
import { logGrid, type ImpulseResponse } from '../signal/index.js';
import { averageCurves } from './averageCurves.js';
import { CrossSpectraAverager } from './crossSpectra.js';
import { findDelay, type FoundDelay } from './findDelay.js';
import { History } from './history.js';
import { InputMeter, type InputLevel } from './inputMeter.js';
import { joinedPair, type JoinedPair } from './joinedPair.js';
import { MOST_MEASUREMENTS, type LiveMeasurement, type LiveSettings } from './liveSetup.js';
import { MeasurementStream, type MeasurementState } from './measurementStream.js';
import { SpectrumAnalyser, type SpectrumReading } from './spectrumAnalyser.js';
import type { TransferCurve } from './transferFunction.js';

/** What the rig brings: a block of every input, and what the generator played meanwhile. */
export interface LiveBlock {
  /** number of its first sample since the session began */
  fromFrame: number;
  channels: Float32Array[];
  generator: Float32Array;
}

/** A delay as it was found lately. */
export interface SeenDelay {
  delayS: number;
  /** whether the last looks agree */
  holds: boolean;
}

export interface MeasuredNow {
  id: string;
  state: MeasurementState;
  /** that is taken off: as set, or as tracked since */
  delayS: number;
  /** what was found of it when it was last looked at; null where nothing sure was */
  seen: SeenDelay | null;
  /** null while there is nothing that could be trusted */
  curve: TransferCurve | null;
  blocks: number;
}

/** A sound level as it is, with the equivalent one since the session began. */
export type SoundNow = WeightedReading & { leqDb: number };

/** Everything as it stands at one moment. */
export interface LiveFrame {
  heardS: number;
  /** that never came, since the session began */
  lostSamples: number;
  inputs: InputLevel[];
  /** by each weighting, dB re full scale; null where no input is metered */
  sound: Record<Weighting, SoundNow> | null;
  measured: MeasuredNow[];
  /** of the inputs that are measured, where they are wanted */
  spectra: { input: number; reading: SpectrumReading }[];
  /** of the metered input in octaves, not weighted; null where no spectra are wanted */
  octaves: SpectrumReading | null;
  /** of two microphones each, those that have both */
  pairs: ({ id: string } & JoinedPair)[];
  /** of all that are good; null where none is wanted, or there is nothing */
  average: TransferCurve | null;
}

/** The points of every curve, Hz. */
export const liveGrid = (rate: number): Float64Array => logGrid(20, Math.min(20_000, 0.45 * rate), 48);

/** So much of each input is kept for finding delays. */
const KEPT_SAMPLES = 1 << 18;
const FIND_SIZE = 65_536;
/** A tracked delay is looked for again so often, seconds, in shorter blocks. */
const TRACK_EVERY_S = 1;
const TRACK_SIZE = 16_384;
const TRACK_SAMPLES = 1 << 16;
/** So many looks that agree within this, seconds, hold still. */
const LOOKS = 3;
const HOLDS_S = 5e-5;
/** Below this a found delay is not followed. */
const SURE_ENOUGH = 0.35;

/**
 * A live session as computation: takes blocks as they come from the rig, and tells how everything stands whenever it is
 * asked. Its numbers depend on what came, never on when it is asked.
 */
export class LiveDesk {
  readonly grid: Float64Array;
  isPaused = false;
  private streams = new Map<string, MeasurementStream>();
  private meters: InputMeter[];
  private history: History;
  private spectra = new Map<number, SpectrumAnalyser>();
  private octaves: SpectrumAnalyser | null = null;
  private sound: { input: number; meter: SoundLevelMeter } | null = null;
  private heard = 0;
  private lost = 0;
  private next: number | null = null;
  private trackedAt = 0;
  /** whose delay was looked at last, and what the last looks at each have found */
  private turn = -1;
  private readonly seen = new Map<string, (number | null)[]>();
  /** delays that are followed, by id */
  private readonly tracked = new Map<string, number>();

  /** @param inputs that the blocks bring, from 1, in their order. @param rate Hz */
  constructor(
    private readonly rate: number,
    private readonly inputs: readonly number[],
    private settings: LiveSettings,
  ) {
    needAbove('LiveDesk', 'rate', rate, 0);
    this.grid = liveGrid(rate);
    this.meters = inputs.map((input) => new InputMeter(input, rate));
    this.history = new History(inputs.length + 1, KEPT_SAMPLES);
    this.change(settings);
  }

  /**
   * Takes over what was changed by hand: what did not change goes on.
   * @throws RangeError for more measurements than there may be
   */
  change(settings: LiveSettings): void {
    const { measurements, blockLength, averaging, levels } = settings;
    if (measurements.length > MOST_MEASUREMENTS)
      throw new RangeError(`LiveDesk: ${measurements.length} measurements, ${MOST_MEASUREMENTS} at most`);
    const before = this.settings;
    const same =
      before.blockLength === blockLength &&
      before.levels === levels &&
      JSON.stringify(before.averaging) === JSON.stringify(averaging);
    const streams = new Map<string, MeasurementStream>();
    for (const asked of measurements) {
      const was = before.measurements.find((m) => m.id === asked.id);
      // what was set by hand counts until it is found elsewhere
      if (!asked.isTracked || was?.delayS !== asked.delayS) this.tracked.delete(asked.id);
      const measurement = this.asTracked(asked);
      const stream = this.streams.get(measurement.id);
      const isTheSame =
        was?.input === measurement.input &&
        was.reference === measurement.reference &&
        JSON.stringify(was.averaging ?? null) === JSON.stringify(measurement.averaging ?? null);
      if (same && stream && isTheSame) {
        if (was !== asked) stream.change(measurement);
        streams.set(measurement.id, stream);
      } else streams.set(measurement.id, new MeasurementStream(measurement, settings, this.rate, this.grid));
    }
    this.changeSpectra(before, settings);
    this.streams = streams;
    this.settings = settings;
    const { soundInput } = settings;
    if (soundInput === null) this.sound = null;
    else if (this.sound?.input !== soundInput)
      this.sound = { input: soundInput, meter: new SoundLevelMeter(this.rate) };
  }

  private changeSpectra(before: LiveSettings, { spectrum, measurements, soundInput }: LiveSettings): void {
    const same = JSON.stringify(before.spectrum) === JSON.stringify(spectrum);
    const old = same ? this.spectra : new Map<number, SpectrumAnalyser>();
    this.spectra = new Map();
    if (!spectrum) {
      this.octaves = null;
      return;
    }
    for (const { input } of measurements)
      this.spectra.set(input, old.get(input) ?? new SpectrumAnalyser(this.rate, spectrum));
    if (soundInput === null) this.octaves = null;
    else if (!same || !this.octaves || before.soundInput !== soundInput)
      this.octaves = new SpectrumAnalyser(this.rate, { ...spectrum, bands: 1, weighting: 'Z' });
  }

  take({ fromFrame, channels, generator }: LiveBlock): void {
    const { length } = generator;
    if (this.next !== null && fromFrame > this.next) this.lost += fromFrame - this.next;
    this.next = fromFrame + length;
    this.heard += length;
    channels.forEach((channel, c) => this.meters[c]!.process(channel));
    const heard = this.sound && channels[this.inputs.indexOf(this.sound.input)];
    if (heard?.every(Number.isFinite)) this.sound!.meter.process(heard);
    if (this.isPaused) return;
    for (const [input, analyser] of this.spectra) {
      const samples = channels[this.inputs.indexOf(input)];
      if (samples) analyser.process(samples);
    }
    if (heard) this.octaves?.process(heard);
    this.history.push(fromFrame, [...channels, generator]);
    for (const measurement of this.settings.measurements) {
      const [x, y] = [this.channelOf(measurement.reference), this.channelOf(measurement.input)];
      const reference = x < 0 ? undefined : (channels[x] ?? generator);
      const measured = y < 0 ? undefined : channels[y];
      if (reference && measured) this.streams.get(measurement.id)!.push(fromFrame, reference, measured);
    }
  }

  private asTracked(measurement: LiveMeasurement): LiveMeasurement {
    const delayS = this.tracked.get(measurement.id);
    return delayS === undefined ? measurement : { ...measurement, delayS };
  }

  /** Index among what is kept; the generator comes after the inputs. -1 for an input that does not stream. */
  private channelOf(input: 'generator' | number): number {
    return input === 'generator' ? this.inputs.length : this.inputs.indexOf(input);
  }

  /** Forgets what was averaged; what streams goes on. */
  reset(): void {
    for (const stream of this.streams.values()) stream.reset();
    for (const analyser of this.spectra.values()) analyser.reset();
    this.octaves?.reset();
  }

  read(): LiveFrame {
    const measured = this.settings.measurements.map((measurement): MeasuredNow => {
      const { id } = measurement;
      const stream = this.streams.get(id)!;
      const { delayS } = this.asTracked(measurement);
      return {
        id,
        state: stream.state,
        delayS,
        seen: this.lookedAt(id),
        curve: stream.curve(),
        blocks: stream.blocks,
      };
    });
    const curves = measured.flatMap(({ curve }) => (curve ? [curve] : []));
    const { average, pairs } = this.settings;
    const curveOf = (id: string) => measured.find((m) => m.id === id)?.curve;
    return {
      heardS: this.heard / this.rate,
      lostSamples: this.lost,
      inputs: this.meters.map((m) => m.read()),
      sound: this.sound && readingsOf(this.sound.meter),
      measured,
      spectra: [...this.spectra].map(([input, analyser]) => ({ input, reading: analyser.read() })),
      octaves: this.octaves?.read() ?? null,
      pairs: pairs.flatMap(({ id, earId, floorId, crossoverHz }) => {
        const [ear, floor] = [curveOf(earId), curveOf(floorId)];
        const joined = ear && floor ? joinedPair(ear, floor, crossoverHz) : null;
        return joined ? [{ id, ...joined }] : [];
      }),
      average: average === 'none' || curves.length === 0 ? null : averageCurves(curves, average),
    };
  }

  /** The last seconds of an input, so that it can be told what stands out of them; null for one that does not stream. */
  heardOf(input: number, seconds: number): Float32Array | null {
    const channel = this.channelOf(input);
    return channel < 0 ? null : this.history.last(channel, Math.round(seconds * this.rate));
  }

  /** @returns null where the measurement has nothing that could be trusted, or is none */
  impulse(id: string, beforeS = 0.02): ImpulseResponse | null {
    return this.streams.get(id)?.impulse(beforeS) ?? null;
  }

  /**
   * The delay of a measurement from the last seconds, whatever is set.
   * @param band Hz, where the source is limited to one
   * @returns null where nothing is coherent
   */
  find(id: string, band?: { from: number; to: number }): FoundDelay | null {
    const measurement = this.settings.measurements.find((m) => m.id === id);
    return measurement ? this.findIn(this.asTracked(measurement), FIND_SIZE, KEPT_SAMPLES, band) : null;
  }

  private findIn(
    { reference, input, delayS }: LiveMeasurement,
    wanted: number,
    most: number,
    band?: { from: number; to: number },
  ): FoundDelay | null {
    const [x, y] = [this.channelOf(reference), this.channelOf(input)];
    if (x < 0 || y < 0) return null;
    const [a, b] = [this.history.last(x, most), this.history.last(y, most)];
    const cutBy = Math.round(delayS * this.rate);
    // as long as what there is allows, a few of them
    let size = wanted;
    while (size > 4096 && a.length - Math.abs(cutBy) < 1.5 * size) size /= 2;
    const averager = new CrossSpectraAverager({
      rate: this.rate,
      size,
      averaging: { kind: 'for ever' },
      delay: cutBy,
      step: 0.25,
    });
    averager.push(0, a, b);
    const spectra = averager.read();
    const found = spectra && findDelay(spectra, this.rate, band);
    if (!found) return null;
    const by = cutBy / this.rate;
    return { ...found, delayS: found.delayS + by, nextS: found.nextS === null ? null : found.nextS + by };
  }

  /**
   * Looks at one delay after the other, one a second of what is heard, so that it can be told whether they hold; lets those that
   * are tracked follow where they are found to have changed by more than half a sample.
   */
  track(): void {
    if (this.isPaused || this.heard - this.trackedAt < TRACK_EVERY_S * this.rate) return;
    this.trackedAt = this.heard;
    const { measurements } = this.settings;
    this.turn = (this.turn + 1) % Math.max(1, measurements.length);
    measurements.forEach((set, i) => {
      if (!set.isTracked && i !== this.turn) return;
      const stream = this.streams.get(set.id)!;
      const measurement = this.asTracked(set);
      const found = stream.state === 'good' ? this.findIn(measurement, TRACK_SIZE, TRACK_SAMPLES) : null;
      const seen = found && found.sure >= SURE_ENOUGH ? found.delayS : null;
      this.seen.set(set.id, [...(this.seen.get(set.id) ?? []), seen].slice(-LOOKS));
      if (!set.isTracked || seen === null) return;
      if (Math.abs(seen - measurement.delayS) * this.rate <= 0.5) return;
      this.tracked.set(set.id, seen);
      stream.change(this.asTracked(set));
    });
  }

  /** What the last looks at a delay have found. */
  private lookedAt(id: string): SeenDelay | null {
    const looks = this.seen.get(id) ?? [];
    const last = looks.at(-1);
    if (last === undefined || last === null) return null;
    const holds = looks.length >= LOOKS && looks.every((v) => v !== null && Math.abs(v - last) < HOLDS_S);
    return { delayS: last, holds };
  }
}

const readingsOf = (meter: SoundLevelMeter) =>
  Object.fromEntries(WEIGHTINGS.map((w) => [w, { ...meter.read(w), leqDb: meter.leqDb(w) }])) as Record<
    Weighting,
    SoundNow
  >;
