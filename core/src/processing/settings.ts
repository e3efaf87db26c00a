import {
  crossoverBiquads,
  sectionBiquad,
  signalPath,
  type CrossoverFilter,
  type Section,
  type SignalPath,
} from '../path/index.js';
import type { Biquad, RealArray } from '../signal/index.js';

/** What of an input goes to the subwoofers as well. */
export interface BassFeed {
  gainDb: number;
  lowPass: CrossoverFilter | null;
}

/** What one output of a processor does, the samples of its FIR apart. */
export interface OutputSettings {
  trimDb: number;
  delayMs: number;
  inverted: boolean;
  muted: boolean;
  /** a small loudspeaker gets the high-pass, a large one plays everything */
  size: 'small' | 'large';
  highPass: CrossoverFilter | null;
  lowPass: CrossoverFilter | null;
  sections: Section[];
  /** taps of its FIR; 0 for none */
  taps: number;
  /** what of the input of the same number goes to all outputs that play bass; null for nothing */
  bassFeed: BassFeed | null;
  /** whether it plays what inputs feed to the subwoofers */
  playsBass: boolean;
}

export const plainOutput = (): OutputSettings => ({
  trimDb: 0,
  delayMs: 0,
  inverted: false,
  muted: false,
  size: 'large',
  highPass: null,
  lowPass: null,
  sections: [],
  taps: 0,
  bassFeed: null,
  playsBass: false,
});

/** Crossovers and sections of an output as biquads. */
export const outputBiquads = (
  { size, highPass, lowPass, sections }: OutputSettings,
  rate: number,
): Biquad[] => [
  ...(size === 'small' ? crossoverBiquads('highpass', highPass, rate) : []),
  ...crossoverBiquads('lowpass', lowPass, rate),
  ...sections.map((s) => sectionBiquad(s, rate)),
];

/** What an output does, as a path, without the device's own latency. */
export const outputPath = (settings: OutputSettings, fir: RealArray | null, rate: number): SignalPath =>
  signalPath(rate, {
    fir: fir && fir.length > 0 ? fir : null,
    filters: outputBiquads(settings, rate),
    gainDb: settings.muted ? -Infinity : settings.trimDb,
    delayS: settings.delayMs / 1000,
    inverted: settings.inverted,
  });
