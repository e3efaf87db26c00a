import type { Averaging } from './crossSpectra.js';
import type { SpectrumSettings } from './spectrumAnalyser.js';

/** A measured input against a reference; `generator` is what the generator plays, before it goes anywhere. */
export interface LiveMeasurement {
  id: string;
  name: string;
  /** from 1 */
  input: number;
  reference: 'generator' | number;
  /** taken off: by so much the input is later than its reference, seconds */
  delayS: number;
  /** added to what is measured */
  gainDb: number;
  inverted: boolean;
  /** whether the delay follows what is found */
  isTracked: boolean;
  /** how its blocks are averaged; as those of all where it is null or absent */
  averaging?: Averaging | null;
  /** what the microphone reads over the truth at each point of `liveGrid`, dB; nothing is corrected when absent */
  correctionDb?: Float64Array | null;
}

/** How long blocks are: one length, or long ones for the lows and short ones for the highs. */
export type BlockLength = number | 'merged';

/** At 48 kHz; at higher rates in proportion. */
export const BLOCK_LENGTHS = [4096, 8192, 16_384, 32_768, 65_536, 131_072, 262_144] as const;
export const MOST_MEASUREMENTS = 8;

/**
 * How blocks make one curve: complex averages; levels by powers, as for a microphone that moves; complex averages in which each block
 * counts at each frequency by how coherent the sound was about then, as where somebody walks past.
 */
export type BlockWeighting = 'complex' | 'power' | 'coherence';

/** A microphone on the floor and one at the ear above it, which make one curve. */
export interface LivePair {
  id: string;
  /** ids of measurements */
  earId: string;
  floorId: string;
  /** below it the floor's counts, above it the ear's */
  crossoverHz: number;
}

/** Averages of several measurements: none, of powers, of complex values, of complex values each by its coherence. */
export type Averaged = 'none' | 'power' | 'complex' | 'coherence';

export interface LiveSettings {
  /** up to eight */
  measurements: LiveMeasurement[];
  blockLength: BlockLength;
  averaging: Averaging;
  levels: BlockWeighting;
  average: Averaged;
  /** one curve of two microphones, each */
  pairs: LivePair[];
  /** input whose sound pressure is metered; null for none */
  soundInput: number | null;
  /** how the inputs of the measurements are analysed as spectra; null for not at all */
  spectrum: SpectrumSettings | null;
}

/** Merged: lengths at 48 kHz, and where each shorter one has taken over, Hz. */
const MERGED = { sizes: [65_536, 16_384, 4096], fromHz: [250, 1000] } as const;

/** Lengths of blocks in samples at a rate, from the longest, and where each shorter one takes over. */
export function blockSizes(
  length: BlockLength,
  rate: number,
): { sizes: number[]; fromHz: readonly number[] } {
  const scale = 2 ** Math.max(0, Math.round(Math.log2(rate / 48_000)));
  const most = 1 << 18;
  const sized = (size: number) => Math.min(most, size * scale);
  return length === 'merged'
    ? { sizes: MERGED.sizes.map(sized), fromHz: MERGED.fromHz }
    : { sizes: [sized(length)], fromHz: [] };
}
