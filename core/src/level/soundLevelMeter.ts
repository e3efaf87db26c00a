import type { Biquad, RealArray } from '../signal/index.js';
import { weightingSections, type Weighting } from './weighting.js';

/** Time weightings of IEC 61672-1:2013: exponential, 125 ms and 1 s. */
export type TimeWeighting = 'Fast' | 'Slow';
export const TIME_CONSTANT_S = { Fast: 0.125, Slow: 1 } as const;

export const WEIGHTINGS = ['A', 'C', 'Z'] as const;
export const TIME_WEIGHTINGS = ['Fast', 'Slow'] as const;

/** What the meter knows of one frequency weighting; dB re full scale (RMS 1), -Infinity before anything was heard. */
export interface WeightedReading {
  fastDb: number;
  slowDb: number;
  /** since the meter was reset */
  maxDb: Record<TimeWeighting, number>;
  minDb: Record<TimeWeighting, number>;
  /** highest sample, dB re 1 */
  peakDb: number;
}

/** Leq is kept in slices this long, so a chosen time is met to a tenth of a second. */
const SLICE_S = 0.1;
/** An hour of slices; older ones are forgotten by `leqDb` over a chosen time, not by the one since the reset. */
const MOST_SLICES = 36000;

interface Chain {
  sections: Biquad[];
  state: Float64Array;
  power: [fast: number, slow: number];
  max: [number, number];
  min: [number, number];
  peak: number;
  slices: number[];
  open: number;
  total: number;
}

const db = (power: number) => 10 * Math.log10(power);

/**
 * A sound level meter after IEC 61672-1:2013, fed block by block: A, C and Z at once, Fast and Slow, maxima and minima, Leq
 * and peak. It knows full scale only; a calibration adds its offset to what is read.
 */
export class SoundLevelMeter {
  private readonly chains: Record<Weighting, Chain>;
  private samples = 0;
  private inSlice = 0;
  private readonly sliceLength: number;
  private readonly settle: number;
  private readonly rise: readonly [number, number];

  /** @param rate Hz, at least 32 kHz */
  constructor(readonly rate: number) {
    const chain = (weighting: Weighting): Chain => {
      const sections = weightingSections(weighting, rate);
      return {
        sections,
        state: new Float64Array(2 * sections.length),
        power: [0, 0],
        max: [0, 0],
        min: [Infinity, Infinity],
        peak: 0,
        slices: [],
        open: 0,
        total: 0,
      };
    };
    this.chains = { A: chain('A'), C: chain('C'), Z: chain('Z') };
    this.sliceLength = Math.round(SLICE_S * rate);
    // minima count once the exponential averages have settled, three times the slower constant
    this.settle = 3 * rate;
    this.rise = [
      1 - Math.exp(-1 / (TIME_CONSTANT_S.Fast * rate)),
      1 - Math.exp(-1 / (TIME_CONSTANT_S.Slow * rate)),
    ];
  }

  /** Seconds heard since the meter was made. */
  get heardS(): number {
    return this.samples / this.rate;
  }

  /** @param block full scale = 1; a value that is no number is an error, as it would stay in the averages for good */
  process(block: RealArray): void {
    for (let i = 0; i < block.length; i++) {
      if (!Number.isFinite(block[i]!)) throw new RangeError(`SoundLevelMeter: sample ${i} is not a number`);
    }
    for (const weighting of WEIGHTINGS) this.run(this.chains[weighting], block);
    this.samples += block.length;
    this.inSlice = (this.inSlice + block.length) % this.sliceLength;
  }

  private run(chain: Chain, block: RealArray): void {
    const { sections, state, power, max, min } = chain;
    const [riseFast, riseSlow] = this.rise;
    let inSlice = this.inSlice;
    for (let i = 0; i < block.length; i++) {
      let x = block[i]!;
      for (let s = 0; s < sections.length; s++) {
        const { b0, b1, b2, a1, a2 } = sections[s]!;
        const y = b0 * x + state[2 * s]!;
        state[2 * s] = b1 * x - a1 * y + state[2 * s + 1]!;
        state[2 * s + 1] = b2 * x - a2 * y;
        x = y;
      }
      const square = x * x;
      power[0] += riseFast * (square - power[0]);
      power[1] += riseSlow * (square - power[1]);
      if (power[0] > max[0]) max[0] = power[0];
      if (power[1] > max[1]) max[1] = power[1];
      if (this.samples + i >= this.settle) {
        if (power[0] < min[0]) min[0] = power[0];
        if (power[1] < min[1]) min[1] = power[1];
      }
      if (square > chain.peak) chain.peak = square;
      chain.open += square;
      chain.total += square;
      if (++inSlice === this.sliceLength) {
        chain.slices.push(chain.open);
        if (chain.slices.length > MOST_SLICES) chain.slices.shift();
        chain.open = 0;
        inSlice = 0;
      }
    }
  }

  read(weighting: Weighting): WeightedReading {
    const { power, max, min, peak } = this.chains[weighting];
    return {
      fastDb: db(power[0]),
      slowDb: db(power[1]),
      maxDb: { Fast: db(max[0]), Slow: db(max[1]) },
      minDb: { Fast: db(min[0]), Slow: db(min[1]) },
      peakDb: db(peak),
    };
  }

  /**
   * Equivalent continuous level over the last `seconds` (whole tenths, at most an hour), or since the reset.
   * @returns dB; over what there is while less was heard; NaN before the first tenth of a second
   */
  leqDb(weighting: Weighting, seconds?: number): number {
    const { slices, total } = this.chains[weighting];
    if (seconds === undefined) return db(total / Math.max(1, this.sinceReset));
    const wanted = slices.slice(-Math.max(1, Math.round(seconds / SLICE_S)));
    return db(wanted.reduce((a, b) => a + b, 0) / (wanted.length * this.sliceLength));
  }

  private resetAt = 0;
  private get sinceReset(): number {
    return this.samples - this.resetAt;
  }

  /** Seconds since maxima, minima, peak and Leq began anew. */
  get sinceResetS(): number {
    return this.sinceReset / this.rate;
  }

  /** Begins maxima, minima, peaks and Leq anew; the running averages go on. */
  reset(): void {
    this.resetAt = this.samples;
    this.inSlice = 0;
    for (const weighting of WEIGHTINGS) {
      const chain = this.chains[weighting];
      chain.max = [0, 0];
      chain.min = [Infinity, Infinity];
      chain.peak = 0;
      chain.slices = [];
      chain.open = 0;
      chain.total = 0;
    }
  }
}
