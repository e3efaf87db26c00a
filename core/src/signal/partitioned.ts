import { needWhole } from '../limits/index.js';
import { emptySpectrum, inverseRealFft, realFft } from './fft.js';
import type { ComplexTrace, RealArray } from './types.js';

/** A filter cut into parts of one length, each transformed: for convolution block by block without an end. */
export interface PartitionedFilter {
  block: number;
  parts: Pick<ComplexTrace, 're' | 'im'>[];
}

/** @param block length of the blocks that it will be fed with, a power of two from 16 on */
export function partitionFilter(filter: RealArray, block: number): PartitionedFilter {
  needBlock('partitionFilter', block);
  const parts: PartitionedFilter['parts'] = [];
  for (let at = 0; at < filter.length; at += block)
    parts.push(realFft(filter.subarray(at, Math.min(filter.length, at + block)), 2 * block));
  return { block, parts };
}

/** A signal that comes block by block, and as much of its past as filters of some length need (overlap-save). */
export class PartitionedInput {
  private readonly spectra: ComplexTrace[];
  private readonly both: Float64Array;
  private readonly sum: ComplexTrace;
  private readonly time: Float64Array;
  private newest = 0;

  /** @param longest samples of the longest filter that it will be heard through */
  constructor(
    readonly block: number,
    longest: number,
  ) {
    needBlock('PartitionedInput', block);
    needWhole('PartitionedInput', 'longest', longest, 1, 1 << 24);
    this.spectra = Array.from({ length: Math.ceil(longest / block) }, () => emptySpectrum(2 * block));
    this.both = new Float64Array(2 * block);
    this.sum = emptySpectrum(2 * block);
    this.time = new Float64Array(2 * block);
  }

  /** @throws RangeError for a block of another length */
  push(samples: RealArray): void {
    const { block, both, spectra } = this;
    if (samples.length !== block)
      throw new RangeError(`PartitionedInput: blocks of ${block} samples, got ${samples.length}`);
    both.copyWithin(0, block);
    both.set(samples, block);
    this.newest = (this.newest + spectra.length - 1) % spectra.length;
    realFft(both, 2 * block, 1, spectra[this.newest]!);
  }

  /**
   * Adds what the newest block sounds like through a filter.
   * @param out as long as a block; added to
   * @throws RangeError for a filter cut otherwise, or longer than was said
   */
  addThrough({ block, parts }: PartitionedFilter, out: RealArray, gain = 1): void {
    const { spectra, sum, time } = this;
    if (block !== this.block || parts.length > spectra.length)
      throw new RangeError(
        `PartitionedInput: ${parts.length} parts of ${block} do not fit ${spectra.length} of ${this.block}`,
      );
    sum.re.fill(0);
    sum.im.fill(0);
    parts.forEach(({ re, im }, p) => {
      const x = spectra[(this.newest + p) % spectra.length]!;
      for (let k = 0; k < re.length; k++) {
        const [a, b, c, d] = [re[k]!, im[k]!, x.re[k]!, x.im[k]!];
        sum.re[k] = sum.re[k]! + a * c - b * d;
        sum.im[k] = sum.im[k]! + a * d + b * c;
      }
    });
    inverseRealFft(sum, time);
    for (let i = 0; i < block; i++) out[i] = out[i]! + gain * time[block + i]!;
  }
}

function needBlock(where: string, block: number): void {
  needWhole(where, 'block', block, 16, 1 << 16);
  if ((block & (block - 1)) !== 0) throw new RangeError(`${where}: block ${block} is no power of two`);
}
