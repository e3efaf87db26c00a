import { weightingDb, type Weighting } from '../level/index.js';
import { needAbove, needWithin } from '../limits/index.js';
import {
  binFrequencies,
  dbOfPower,
  emptySpectrum,
  hannWindow,
  octaveBands,
  powerOfDb,
  realFft,
  type Band,
  type ComplexTrace,
} from '../signal/index.js';
import { powerInBands } from './powerBands.js';

/** Bands of 1/n octave, or narrow ones, 2.9 Hz wide whatever the frequency. */
export type SpectrumBands = 1 | 3 | 6 | 12 | 24 | 48 | 'narrow';

export interface SpectrumSettings {
  bands: SpectrumBands;
  weighting: Weighting;
  /** what is averaged: the last seconds, each moment counting less the longer ago it is, or all since it was reset */
  averaging: { kind: 'exponential'; seconds: number } | { kind: 'for ever' };
}

/** Levels of a spectrum, dB re full scale (mean square 1), each as long as `frequency`; NaN before anything was heard. */
export interface SpectrumReading {
  /** of the bands' middles, Hz */
  frequency: Float64Array;
  levelDb: Float64Array;
  /** by time weighting Fast (in the lows as fast as their blocks allow) since it was reset */
  maxDb: Float64Array;
  minDb: Float64Array;
  /** exceeded in 10, 50 and 90 % of the time since it was reset; NaN of narrow bands, of which nobody counts them */
  l10Db: Float64Array;
  l50Db: Float64Array;
  l90Db: Float64Array;
  /** the last moment, Fast */
  fastDb: Float64Array;
  /** of all bands together, averaged as `levelDb` */
  overallDb: number;
  /** seconds since it was reset */
  heardS: number;
}

/** At 48 kHz; long blocks for the lows, short ones for the rest. */
const LONG = 65_536;
const SHORT = 8192;
/** Below this the long ones speak, Hz. */
const LOWS_HZ = 250;
const FAST_S = 0.125;
/** Levels are counted in steps of half a decibel, from the lowest on. */
const STEP_DB = 0.5;
const LOWEST_DB = -180;
const STEPS = 400;
/** A narrow band has so many bins of the long blocks: as many as a tone is spread over by their window. */
const NARROW_BINS = 4;

/** One length of blocks: power at its bins, as new blocks come. */
class BlockPower {
  readonly size: number;
  readonly hop: number;
  readonly step: number;
  readonly power: Float64Array;
  private readonly held: Float32Array;
  private filled = 0;
  private readonly window: Float64Array;
  private readonly windowed: Float64Array;
  private readonly spectrum: ComplexTrace;
  private readonly scale: number;
  private readonly weights: Float64Array;

  constructor(size: number, hop: number, rate: number, weighting: Weighting) {
    this.size = size;
    this.hop = hop;
    this.step = rate / size;
    this.power = new Float64Array(size / 2 + 1);
    this.held = new Float32Array(size);
    this.window = hannWindow(size);
    this.windowed = new Float64Array(size);
    this.spectrum = emptySpectrum(size, rate);
    // Parseval: with it the sum over the bins is the mean square of what came in
    this.scale = 2 / (size * this.window.reduce((sum, w) => sum + w * w, 0));
    const frequency = binFrequencies(size, rate);
    this.weights = frequency.map((f) => (f > 0 ? this.scale * powerOfDb(weightingDb(weighting, f)) : 0));
  }

  process(samples: Float32Array, onBlock: () => void): void {
    for (let at = 0; at < samples.length;) {
      const count = Math.min(samples.length - at, this.size - this.filled);
      this.held.set(samples.subarray(at, at + count), this.filled);
      this.filled += count;
      at += count;
      if (this.filled < this.size) continue;
      for (let i = 0; i < this.size; i++) this.windowed[i] = this.held[i]! * this.window[i]!;
      const { re, im } = realFft(this.windowed, this.size, 1, this.spectrum);
      for (let k = 0; k < re.length; k++)
        this.power[k] = this.weights[k]! * (re[k]! * re[k]! + im[k]! * im[k]!);
      onBlock();
      this.held.copyWithin(0, this.hop);
      this.filled = this.size - this.hop;
    }
  }

  clear(): void {
    this.filled = 0;
  }
}

/** A part of the spectrum: its bands, and everything that is known of their levels. */
interface Part {
  block: BlockPower;
  bands: Band[];
  average: Float64Array;
  weight: number;
  fast: Float64Array;
  isFast: boolean;
  max: Float64Array;
  min: Float64Array;
  counts: Uint32Array;
  blocks: number;
}

/**
 * Spectrum of an input that streams: averages, maxima and minima, percentiles, in bands of a part of an octave (IEC 61260-1, base
 * 10) or narrow ones, weighted.
 */
export class SpectrumAnalyser {
  readonly frequency: Float64Array;
  private readonly parts: Part[];
  private heard = 0;

  /** @param rate Hz. @throws RangeError for a rate or a time that is none */
  constructor(
    private readonly rate: number,
    private readonly settings: SpectrumSettings,
  ) {
    needAbove('SpectrumAnalyser', 'rate', rate, 0);
    if (settings.averaging.kind === 'exponential')
      needWithin('SpectrumAnalyser', 'seconds', settings.averaging.seconds, 0.01, 3600);
    const scale = 2 ** Math.max(0, Math.round(Math.log2(rate / 48_000)));
    const blocks = [LONG, SHORT].map(
      (size) => new BlockPower(size * scale, (size * scale) / 4, rate, settings.weighting),
    );
    const bands = bandsOf(settings.bands, rate, blocks[0]!.step);
    this.parts = blocks.map((block, i) => partOf(block, bands[i]!, settings.bands !== 'narrow'));
    this.frequency = Float64Array.from(bands.flat(), (b) => b.centre);
  }

  /** Takes what came in; what is no number makes the block that it is in begin anew. */
  process(samples: Float32Array): void {
    this.heard += samples.length;
    if (!samples.every(Number.isFinite)) {
      for (const { block } of this.parts) block.clear();
      return;
    }
    for (const part of this.parts) part.block.process(samples, () => this.add(part));
  }

  reset(): void {
    this.heard = 0;
    for (const part of this.parts) {
      part.average.fill(0);
      part.weight = 0;
      part.isFast = false;
      part.max.fill(0);
      part.min.fill(Infinity);
      part.counts.fill(0);
      part.blocks = 0;
    }
  }

  private add(part: Part): void {
    const { block, bands, average, fast, max, min, counts } = part;
    const power = powerInBands(block.power, block.step, bands);
    const { averaging } = this.settings;
    const hopS = block.hop / this.rate;
    const kept = averaging.kind === 'exponential' ? Math.exp(-hopS / averaging.seconds) : 1;
    const rise = part.isFast ? 1 - Math.exp(-hopS / FAST_S) : 1;
    part.weight = kept * part.weight + 1;
    part.isFast = true;
    part.blocks++;
    for (let b = 0; b < bands.length; b++) {
      average[b] = kept * average[b]! + power[b]!;
      fast[b] = fast[b]! + rise * (power[b]! - fast[b]!);
      if (fast[b]! > max[b]!) max[b] = fast[b]!;
      if (fast[b]! < min[b]!) min[b] = fast[b]!;
      if (counts.length === 0) continue;
      const step = Math.floor((dbOfPower(fast[b]!) - LOWEST_DB) / STEP_DB);
      counts[b * STEPS + Math.max(0, Math.min(STEPS - 1, step))]!++;
    }
  }

  read(): SpectrumReading {
    const joined = (of: (part: Part, b: number) => number) =>
      Float64Array.from(
        this.parts.flatMap((part) => part.bands.map((_, b) => (part.weight > 0 ? of(part, b) : NaN))),
      );
    const levels = joined((p, b) => p.average[b]! / p.weight);
    let overall = 0;
    for (const v of levels) if (v > 0) overall += v;
    return {
      frequency: this.frequency,
      levelDb: levels.map(dbOfPower),
      maxDb: joined((p, b) => dbOfPower(p.max[b]!)),
      minDb: joined((p, b) => dbOfPower(p.min[b]!)),
      l10Db: joined((p, b) => exceeded(p, b, 0.1)),
      l50Db: joined((p, b) => exceeded(p, b, 0.5)),
      l90Db: joined((p, b) => exceeded(p, b, 0.9)),
      fastDb: joined((p, b) => dbOfPower(p.fast[b]!)),
      overallDb: dbOfPower(overall),
      heardS: this.heard / this.rate,
    };
  }
}

/** Level that is exceeded in a share of all blocks, dB, to the half step. */
function exceeded({ counts, blocks }: Part, band: number, share: number): number {
  if (counts.length === 0) return NaN;
  const wanted = share * blocks;
  let above = 0;
  for (let step = STEPS - 1; step >= 0; step--) {
    above += counts[band * STEPS + step]!;
    if (above >= wanted && above > 0) return LOWEST_DB + (step + 0.5) * STEP_DB;
  }
  return NaN;
}

function partOf(block: BlockPower, bands: Band[], counts: boolean): Part {
  const empty = () => new Float64Array(bands.length);
  return {
    block,
    bands,
    average: empty(),
    weight: 0,
    fast: empty(),
    isFast: false,
    max: empty(),
    min: empty().fill(Infinity),
    counts: new Uint32Array(counts ? bands.length * STEPS : 0),
    blocks: 0,
  };
}

/** Bands of the long blocks, and of the short ones. @param fine Hz between the bins of the long ones */
function bandsOf(bands: SpectrumBands, rate: number, fine: number): [Band[], Band[]] {
  const most = Math.min(20_000, 0.45 * rate);
  if (bands !== 'narrow') {
    const all = octaveBands(bands, bands === 1 ? 25 : 20, most);
    return [all.filter((b) => b.centre < LOWS_HZ), all.filter((b) => b.centre >= LOWS_HZ)];
  }
  const step = NARROW_BINS * fine;
  const first = Math.ceil(20 / step);
  const narrow = Array.from({ length: Math.floor(most / step) - first }, (_, i): Band => {
    const centre = (first + i) * step;
    return { centre, from: centre - step / 2, to: centre + step / 2 };
  });
  // of one width, so of one kind of block
  return [narrow, []];
}
