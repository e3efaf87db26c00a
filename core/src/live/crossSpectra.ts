import { needAbove, needWhole, needWithin } from '../limits/index.js';
import { binFrequencies, hannWindow, realFft, type ComplexTrace } from '../signal/index.js';
import { PairStream, type BlockState, type PairBlock } from './pairStream.js';

/** How blocks are averaged: the later ones counting more, all alike, or so many and then no more. */
export type Averaging =
  { kind: 'exponential'; seconds: number } | { kind: 'for ever' } | { kind: 'fixed'; blocks: number };

export interface CrossSpectraSetup {
  rate: number;
  /** of a block, a power of two */
  size: number;
  averaging: Averaging;
  /** samples by which the measured input is later, whole */
  delay: number;
  /** blocks begin every this part of their size; a half when absent */
  step?: number;
  /** whether each block counts, at each bin, by the coherence of the last few */
  byCoherence?: boolean;
}

/** A block counts by the coherence of itself and of those before it, so many of them counting. */
const RECENT_BLOCKS = 4;
/** Even where nothing is coherent a block counts a little: otherwise a disturbed frequency would have no average at all. */
const LEAST_WEIGHT = 0.01;

/** Averages of two inputs over blocks, on the bins of their size: powers, and the cross spectrum conj(X) Y. */
export interface CrossSpectra {
  frequency: Float64Array;
  reference: Float64Array;
  measured: Float64Array;
  re: Float64Array;
  im: Float64Array;
  /** how many blocks counting alike would tell as much */
  blocks: number;
}

/**
 * Averaged power and cross spectra of two inputs that stream (Welch 1967, Hann windows). Blocks that are silent, clipped or broken do
 * not count, and are counted.
 */
export class CrossSpectraAverager {
  readonly taken: Record<BlockState, number> = { good: 0, silent: 0, clipped: 0, broken: 0 };
  /** how the last block stood; null before the first one */
  last: BlockState | null = null;
  /** changes whenever what is read may have */
  version = 0;
  private readonly stream: PairStream;
  private readonly window: Float64Array;
  private readonly sums: Omit<CrossSpectra, 'frequency' | 'blocks'>;
  /** blocks that were taken into the average */
  private count = 0;
  /** sum of weights, and of their squares */
  private weight = 0;
  private squares = 0;
  private readonly x: ComplexTrace;
  private readonly y: ComplexTrace;
  private readonly windowed: Float64Array;
  private readonly recent: RecentCoherence | null;

  constructor(private readonly setup: CrossSpectraSetup) {
    const { rate, size, averaging, delay, step = 0.5 } = setup;
    needAbove('CrossSpectraAverager', 'rate', rate, 0);
    needWhole('CrossSpectraAverager', 'size', size, 64, 1 << 18);
    needWithin('CrossSpectraAverager', 'step', step, 1 / 16, 1);
    if (averaging.kind === 'exponential') needAbove('CrossSpectraAverager', 'seconds', averaging.seconds, 0);
    if (averaging.kind === 'fixed') needWhole('CrossSpectraAverager', 'blocks', averaging.blocks, 1, 1e6);
    const bins = size / 2 + 1;
    const empty = () => new Float64Array(bins);
    this.window = hannWindow(size);
    this.windowed = new Float64Array(size);
    this.sums = { reference: empty(), measured: empty(), re: empty(), im: empty() };
    const frequency = binFrequencies(size, rate);
    this.x = { frequency, re: empty(), im: empty() };
    this.y = { frequency, re: empty(), im: empty() };
    this.recent = setup.byCoherence ? new RecentCoherence(bins) : null;
    this.stream = new PairStream(size, Math.max(1, Math.round(step * size)), delay, (b) => this.add(b));
  }

  /** how many blocks counting alike would tell as much */
  get blocks(): number {
    return this.squares > 0 ? this.weight ** 2 / this.squares : 0;
  }

  get lostSamples(): number {
    return this.stream.lostSamples;
  }

  push(at: number, reference: Float32Array, measured: Float32Array): void {
    this.stream.push(at, reference, measured);
  }

  /** Forgets what was averaged; what streams goes on. */
  reset(): void {
    for (const sum of Object.values(this.sums)) sum.fill(0);
    this.recent?.reset();
    this.count = 0;
    this.weight = 0;
    this.squares = 0;
    this.last = null;
    this.version++;
  }

  /** The averages as they stand; null before the first good block, and while the inputs give nothing that could be trusted. */
  read(): CrossSpectra | null {
    if (this.weight === 0 || this.last !== 'good') return null;
    const by = 1 / this.weight;
    const { reference, measured, re, im } = this.sums;
    return {
      frequency: this.x.frequency,
      reference: reference.map((v) => v * by),
      measured: measured.map((v) => v * by),
      re: re.map((v) => v * by),
      im: im.map((v) => v * by),
      blocks: this.blocks,
    };
  }

  /** The same as sums that go on changing, for what only asks for their ratios: nothing is copied. */
  sumsNow(): CrossSpectra | null {
    if (this.weight === 0 || this.last !== 'good') return null;
    return { frequency: this.x.frequency, ...this.sums, blocks: this.blocks };
  }

  private add({ reference, measured, state }: PairBlock): void {
    this.taken[state]++;
    this.last = state;
    this.version++;
    if (state !== 'good') return;
    const { averaging, rate, size, step = 0.5 } = this.setup;
    if (averaging.kind === 'fixed' && this.count >= averaging.blocks) return;
    this.count++;
    const kept = averaging.kind === 'exponential' ? Math.exp(-(step * size) / (rate * averaging.seconds)) : 1;
    this.transform(reference, this.x);
    this.transform(measured, this.y);
    const { x, y, sums, recent } = this;
    const weights = recent?.take(x, y, sums);
    let mean = 0;
    for (let k = 0; k < x.re.length; k++) {
      const [a, b, c, d] = [x.re[k]!, x.im[k]!, y.re[k]!, y.im[k]!];
      const w = weights ? weights[k]! : 1;
      mean += w;
      sums.reference[k] = kept * sums.reference[k]! + w * (a * a + b * b);
      sums.measured[k] = kept * sums.measured[k]! + w * (c * c + d * d);
      sums.re[k] = kept * sums.re[k]! + w * (a * c + b * d);
      sums.im[k] = kept * sums.im[k]! + w * (a * d - b * c);
    }
    mean /= x.re.length;
    this.weight = kept * this.weight + mean;
    this.squares = kept * kept * this.squares + mean * mean;
  }

  private transform(samples: Float32Array, into: ComplexTrace): void {
    for (let i = 0; i < samples.length; i++) this.windowed[i] = samples[i]! * this.window[i]!;
    realFft(this.windowed, this.setup.size, this.setup.rate, into);
  }
}

/**
 * How coherent the last few blocks are at each bin: what a disturbance that passes does to it. The part of the measured power that the
 * response as averaged so far does not explain is the noise, so that noise in phase and noise against it count alike; the usual
 * estimate from a few blocks prefers what happens to add up, and with it too high a level.
 */
class RecentCoherence {
  private readonly explained: Float64Array;
  private readonly rest: Float64Array;
  private readonly weights: Float64Array;

  constructor(bins: number) {
    this.explained = new Float64Array(bins);
    this.rest = new Float64Array(bins);
    this.weights = new Float64Array(bins);
  }

  reset(): void {
    this.explained.fill(0);
    this.rest.fill(0);
  }

  /**
   * @param sums of the blocks before; nothing yet for the first one
   * @returns the weight of this block at each bin, `LEAST_WEIGHT` to 1; the same array each time
   */
  take(x: ComplexTrace, y: ComplexTrace, sums: Omit<CrossSpectra, 'frequency' | 'blocks'>): Float64Array {
    const kept = 1 - 1 / RECENT_BLOCKS;
    const { explained, rest, weights } = this;
    for (let k = 0; k < weights.length; k++) {
      const xx = sums.reference[k]!;
      if (!(xx > 0)) {
        weights[k] = 1;
        continue;
      }
      const [p, q] = [sums.re[k]! / xx, sums.im[k]! / xx];
      const [a, b] = [x.re[k]!, x.im[k]!];
      const [c, d] = [p * a - q * b, p * b + q * a];
      const s = (explained[k] = kept * explained[k]! + c * c + d * d);
      const r = (rest[k] = kept * rest[k]! + (y.re[k]! - c) ** 2 + (y.im[k]! - d) ** 2);
      weights[k] = Math.max(LEAST_WEIGHT, s + r > 0 ? s / (s + r) : 0);
    }
    return weights;
  }
}
