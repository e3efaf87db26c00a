import { gainOfDb, type ComplexTrace, type ImpulseResponse } from '../signal/index.js';
import { CrossSpectraAverager, type CrossSpectra } from './crossSpectra.js';
import { impulseOf } from './impulseOf.js';
import { blockSizes, type LiveMeasurement, type LiveSettings } from './liveSetup.js';
import type { BlockState } from './pairStream.js';
import { mergedCurve, transferCurve, withoutDelay, type TransferCurve } from './transferFunction.js';

/** How a measurement stands; `waiting` until the first block is whole. */
export type MeasurementState = BlockState | 'waiting';

/** Long blocks begin every quarter of their length, as nobody wants to wait, the shortest as well, as changes are seen by them; others every half. */
const LONG = 65_536;
const SHORT = 4096;
/** A delay may be off what the blocks are cut by, as a part of the shortest: it costs so much of the coherence. */
const MOST_OFF = 1 / 200;

/** One measurement while it streams: as many averages as there are lengths of blocks, and the curve that they make. */
export class MeasurementStream {
  private averagers: CrossSpectraAverager[];
  private parts: (TransferCurve | null)[];
  private counts: number[];
  /** what the blocks are cut by, samples */
  private cutBy: number;
  private kept: { from: LiveMeasurement; curve: TransferCurve | null } | null = null;

  private readonly settings: Pick<LiveSettings, 'blockLength' | 'averaging' | 'levels'>;

  constructor(
    private measurement: LiveMeasurement,
    settings: Pick<LiveSettings, 'blockLength' | 'averaging' | 'levels'>,
    private readonly rate: number,
    private readonly grid: Float64Array,
  ) {
    const { blockLength, levels } = settings;
    this.settings = { blockLength, levels, averaging: measurement.averaging ?? settings.averaging };
    this.cutBy = Math.round(measurement.delayS * rate);
    this.averagers = averagersOf(this.settings, rate, this.cutBy);
    this.parts = this.averagers.map(() => null);
    this.counts = this.averagers.map(() => -1);
  }

  /** Takes over what was changed by hand; averages begin anew only where the blocks have to be cut elsewhere. */
  change(measurement: LiveMeasurement): void {
    this.measurement = measurement;
    const off = Math.abs(Math.round(measurement.delayS * this.rate) - this.cutBy);
    const { sizes } = blockSizes(this.settings.blockLength, this.rate);
    if (off <= MOST_OFF * Math.min(...sizes)) return;
    this.cutBy = Math.round(measurement.delayS * this.rate);
    this.averagers = averagersOf(this.settings, this.rate, this.cutBy);
    this.reset();
  }

  push(at: number, reference: Float32Array, measured: Float32Array): void {
    for (const averager of this.averagers) averager.push(at, reference, measured);
  }

  reset(): void {
    for (const averager of this.averagers) averager.reset();
    this.counts.fill(-1);
    this.parts.fill(null);
    this.kept = null;
  }

  get state(): MeasurementState {
    // the shortest blocks are the first to tell
    return this.averagers.at(-1)!.last ?? 'waiting';
  }

  get lostSamples(): number {
    return Math.max(...this.averagers.map((a) => a.lostSamples));
  }

  /** So many blocks counting alike stand behind it, of the longest that have come. */
  get blocks(): number {
    return this.averagers.reduce((found, a) => found || a.blocks, 0);
  }

  /** The curve as it stands, delay, gain and polarity applied; null while there is none. */
  curve(): TransferCurve | null {
    let isNew = this.kept === null || this.kept.from !== this.measurement;
    this.averagers.forEach((averager, i) => {
      const count = averager.version;
      if (count === this.counts[i]) return;
      this.counts[i] = count;
      const spectra = averager.sumsNow();
      this.parts[i] = spectra && this.partOf(spectra, i);
      isNew = true;
    });
    if (isNew || !this.kept) this.kept = { from: this.measurement, curve: this.joined() };
    return this.kept.curve;
  }

  /** What blocks of one length say, as far up as they are asked: above, shorter ones take over. */
  private partOf(spectra: CrossSpectra, i: number): TransferCurve {
    const { grid } = this;
    const { fromHz } = blockSizes(this.settings.blockLength, this.rate);
    const above = fromHz[i] === undefined ? -1 : grid.findIndex((f) => f > fromHz[i]!);
    const count = above < 0 ? grid.length : above + 1;
    const how = this.settings.levels === 'power' ? 'power' : 'complex';
    const part = transferCurve(spectra, grid.subarray(0, count), how);
    if (count === grid.length) return part;
    const whole = (of: Float64Array) => {
      const out = new Float64Array(grid.length).fill(NaN);
      out.set(of);
      return out;
    };
    return { frequency: grid, re: whole(part.re), im: whole(part.im), coherence: whole(part.coherence) };
  }

  private joined(): TransferCurve | null {
    if (this.state !== 'good' && this.state !== 'waiting') return null;
    const { fromHz } = blockSizes(this.settings.blockLength, this.rate);
    const first = this.parts.findIndex((p) => p !== null);
    if (first < 0) return null;
    // until the long blocks have come, the shorter ones speak for the lows as far as they can
    const ready = this.parts.slice(first).filter((p) => p !== null);
    const curve =
      ready.length === 1 ? ready[0]! : mergedCurve(ready, fromHz.slice(first, first + ready.length - 1));
    const { delayS, gainDb, inverted, correctionDb } = this.measurement;
    const timed = withoutDelay(curve, delayS - this.cutBy / this.rate);
    const sign = inverted ? -1 : 1;
    const gain = this.grid.map((_, n) => sign * gainOfDb(gainDb - (correctionDb?.[n] ?? 0)));
    return { ...timed, re: timed.re.map((v, n) => gain[n]! * v), im: timed.im.map((v, n) => gain[n]! * v) };
  }

  /** Impulse response by the longest blocks that have come, gain and polarity applied; time zero is the delay that was set. */
  impulse(beforeS: number): ImpulseResponse | null {
    const { delayS, gainDb, inverted } = this.measurement;
    const gain = (inverted ? -1 : 1) * gainOfDb(gainDb);
    for (const averager of this.averagers) {
      const spectra = averager.read();
      if (!spectra) continue;
      const cut: ComplexTrace = spectra;
      const { re, im } = withoutDelay({ ...cut, coherence: cut.re }, delayS - this.cutBy / this.rate);
      const impulse = impulseOf({ ...spectra, re, im }, this.rate, beforeS);
      return { ...impulse, samples: impulse.samples.map((v) => gain * v) };
    }
    return null;
  }
}

function averagersOf(
  { blockLength, averaging, levels }: Pick<LiveSettings, 'blockLength' | 'averaging' | 'levels'>,
  rate: number,
  delay: number,
): CrossSpectraAverager[] {
  return blockSizes(blockLength, rate).sizes.map(
    (size) =>
      new CrossSpectraAverager({
        rate,
        size,
        averaging,
        delay,
        byCoherence: levels === 'coherence',
        step: size >= LONG || size <= SHORT ? 0.25 : 0.5,
      }),
  );
}
