import { needAbove } from '../limits/index.js';
import { logGrid, type ImpulseResponse } from '../signal/index.js';
import { averageCurves } from './averageCurves.js';
import { CrossSpectraAverager } from './crossSpectra.js';
import { findDelay, type FoundDelay } from './findDelay.js';
import { History } from './history.js';
import { InputMeter, type InputLevel } from './inputMeter.js';
import { MOST_MEASUREMENTS, type LiveMeasurement, type LiveSettings } from './liveSetup.js';
import { MeasurementStream, type MeasurementState } from './measurementStream.js';
import type { TransferCurve } from './transferFunction.js';

/** What the rig brings: a block of every input, and what the generator played meanwhile. */
export interface LiveBlock {
  /** number of its first sample since the session began */
  fromFrame: number;
  channels: Float32Array[];
  generator: Float32Array;
}

export interface MeasuredNow {
  id: string;
  state: MeasurementState;
  /** null while there is nothing that could be trusted */
  curve: TransferCurve | null;
  blocks: number;
}

/** Everything as it stands at one moment. */
export interface LiveFrame {
  heardS: number;
  /** that never came, since the session began */
  lostSamples: number;
  inputs: InputLevel[];
  measured: MeasuredNow[];
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
  private heard = 0;
  private lost = 0;
  private next: number | null = null;
  private trackedAt = 0;

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
    for (const measurement of measurements) {
      const was = before.measurements.find((m) => m.id === measurement.id);
      const stream = this.streams.get(measurement.id);
      if (same && stream && was?.input === measurement.input && was.reference === measurement.reference) {
        if (was !== measurement) stream.change(measurement);
        streams.set(measurement.id, stream);
      } else streams.set(measurement.id, new MeasurementStream(measurement, settings, this.rate, this.grid));
    }
    this.streams = streams;
    this.settings = settings;
  }

  take({ fromFrame, channels, generator }: LiveBlock): void {
    const { length } = generator;
    if (this.next !== null && fromFrame > this.next) this.lost += fromFrame - this.next;
    this.next = fromFrame + length;
    this.heard += length;
    channels.forEach((channel, c) => this.meters[c]!.process(channel));
    if (this.isPaused) return;
    this.history.push(fromFrame, [...channels, generator]);
    for (const measurement of this.settings.measurements) {
      const [x, y] = [this.channelOf(measurement.reference), this.channelOf(measurement.input)];
      const reference = x < 0 ? undefined : (channels[x] ?? generator);
      const measured = y < 0 ? undefined : channels[y];
      if (reference && measured) this.streams.get(measurement.id)!.push(fromFrame, reference, measured);
    }
  }

  /** Index among what is kept; the generator comes after the inputs. -1 for an input that does not stream. */
  private channelOf(input: 'generator' | number): number {
    return input === 'generator' ? this.inputs.length : this.inputs.indexOf(input);
  }

  /** Forgets what was averaged; what streams goes on. */
  reset(): void {
    for (const stream of this.streams.values()) stream.reset();
  }

  read(): LiveFrame {
    const measured = this.settings.measurements.map(({ id }): MeasuredNow => {
      const stream = this.streams.get(id)!;
      return { id, state: stream.state, curve: stream.curve(), blocks: stream.blocks };
    });
    const curves = measured.flatMap(({ curve }) => (curve ? [curve] : []));
    const { average } = this.settings;
    return {
      heardS: this.heard / this.rate,
      lostSamples: this.lost,
      inputs: this.meters.map((m) => m.read()),
      measured,
      average: average === 'none' || curves.length === 0 ? null : averageCurves(curves, average),
    };
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
    return measurement ? this.findIn(measurement, FIND_SIZE, KEPT_SAMPLES, band) : null;
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
   * The delays of measurements that are tracked, where they are found to have changed by more than half a sample; looks
   * once a second of what is heard.
   */
  track(): { id: string; delayS: number }[] {
    if (this.isPaused || this.heard - this.trackedAt < TRACK_EVERY_S * this.rate) return [];
    this.trackedAt = this.heard;
    return this.settings.measurements.flatMap((measurement) => {
      if (!measurement.isTracked || this.streams.get(measurement.id)!.state !== 'good') return [];
      const found = this.findIn(measurement, TRACK_SIZE, TRACK_SAMPLES);
      if (!found || found.sure < SURE_ENOUGH) return [];
      const moved = Math.abs(found.delayS - measurement.delayS) * this.rate;
      return moved > 0.5 ? [{ id: measurement.id, delayS: found.delayS }] : [];
    });
  }
}
