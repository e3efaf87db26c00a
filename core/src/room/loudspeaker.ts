import {
  binFrequencies,
  biquadTrace,
  butterworth,
  gainOfDb,
  peaking,
  scaleTrace,
  type Biquad,
  type ComplexTrace,
} from '../signal/index.js';

/** A loudspeaker on its axis as a model: a band-pass with the real phase of its filters, a few resonances. */
export interface LoudspeakerModel {
  name: string;
  /** corner and order of the fall towards low frequencies (Butterworth) */
  low: { frequency: number; order: number };
  /** the same towards high frequencies */
  high: { frequency: number; order: number };
  /** what else shapes the response on axis */
  resonances: { frequency: number; gainDb: number; q: number }[];
  /** level on axis at 1 m within the band, dB re full scale in for full scale out of the microphone input */
  levelDb: number;
  /** second and third order of the drive, y = x + a x^2 + b x^3 */
  distortion: { second: number; third: number };
}

/** Sections of a loudspeaker on axis, without its level. */
export function loudspeakerSections(
  { low, high, resonances }: Pick<LoudspeakerModel, 'low' | 'high' | 'resonances'>,
  rate: number,
): Biquad[] {
  return [
    ...butterworth('highpass', low.order, low.frequency, rate),
    ...butterworth('lowpass', high.order, high.frequency, rate),
    ...resonances.map(({ frequency, gainDb, q }) => peaking(frequency, gainDb, q, rate)),
  ];
}

/** Response on axis at 1 m, minimum phase, on the bins of `size` at `rate`. */
export function loudspeakerSpectrum(model: LoudspeakerModel, size: number, rate: number): ComplexTrace {
  const trace = biquadTrace(loudspeakerSections(model, rate), binFrequencies(size, rate), rate);
  return scaleTrace(trace, gainOfDb(model.levelDb));
}
