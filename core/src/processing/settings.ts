import { sectionBiquad, type Section } from '../correct/index.js';
import { crossoverBiquads, type CrossoverFilter } from '../alignment/index.js';
import {
  biquadSpectrum,
  delaySpectrum,
  gainOfDb,
  multiplySpectra,
  realFft,
  type Biquad,
  type HalfSpectrum,
  type RealArray,
} from '../signal/index.js';

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

/** Response of an output on the bins of `size` at its rate, without the device's own latency. */
export function outputSpectrum(
  settings: OutputSettings,
  fir: RealArray | null,
  size: number,
  rate: number,
): HalfSpectrum {
  let spectrum = biquadSpectrum(outputBiquads(settings, rate), size);
  if (fir && fir.length > 0) spectrum = multiplySpectra(spectrum, realFft(fir, size));
  const gain = settings.muted ? 0 : gainOfDb(settings.trimDb) * (settings.inverted ? -1 : 1);
  for (let k = 0; k < spectrum.re.length; k++) {
    spectrum.re[k] = spectrum.re[k]! * gain;
    spectrum.im[k] = spectrum.im[k]! * gain;
  }
  return delaySpectrum(spectrum, (settings.delayMs / 1000) * rate);
}
