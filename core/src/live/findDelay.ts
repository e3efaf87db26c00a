import { needAbove, needWithin } from '../limits/index.js';
import { cosineStep, inverseRealFft } from '../signal/index.js';
import type { CrossSpectra } from './crossSpectra.js';

/** When the measured input is heard after the reference, and how sure that is. */
export interface FoundDelay {
  delayS: number;
  /** by how much the fit of the phase leaves it open, seconds (standard deviation) */
  spreadS: number;
  /** of the highest peak and the next best one: 0 where both are alike, 1 where there is no other */
  sure: number;
  /** the next best; null where there is none */
  nextS: number | null;
}

/** The correlation is looked at in steps of this part of a sample. */
const FINER = 4;
const LEAST_COHERENCE = 0.02;
/** A second peak lower than this is the noise's. */
const LEAST_NEXT = 0.25;

/**
 * The delay between two inputs from their averaged spectra: the peak of the envelope of the correlation, every frequency counting by
 * its coherence alone (Knapp and Carter 1976), made finer by the slope of the phase. So neither polarity nor a constant turn of the phase
 * moves it, and a subwoofer's peak, which says little by itself, is found by its whole band.
 * @param band Hz; the whole of what is coherent when absent
 * @returns null where nothing is coherent in that band
 */
export function findDelay(
  spectra: CrossSpectra,
  rate: number,
  band: { from: number; to: number } = { from: 20, to: 20_000 },
): FoundDelay | null {
  needAbove('findDelay', 'rate', rate, 0);
  needWithin('findDelay', 'lower end of the band in Hz', band.from, 1, rate / 2);
  needWithin('findDelay', 'upper end of the band in Hz', band.to, band.from, 1e6);
  const { frequency, re, im, reference, measured, blocks } = spectra;
  const bins = frequency.length;
  const size = 2 * (bins - 1);
  const weighted = { re: new Float64Array(bins), im: new Float64Array(bins) };
  const certain = new Float64Array(bins);
  let total = 0;
  for (let k = 1; k < bins - 1; k++) {
    const f = frequency[k]!;
    // a third of an octave of fade at either end, so that the correlation does not ring
    const inBand =
      cosineStep(Math.log2(f / band.from), -1 / 6, 1 / 6) * cosineStep(Math.log2(f / band.to), 1 / 6, -1 / 6);
    const cross = Math.hypot(re[k]!, im[k]!);
    if (inBand === 0 || !(cross > 0)) continue;
    const seen = Math.min(1, cross ** 2 / (reference[k]! * measured[k]!));
    const coherence = seen - (1 - seen) ** 2 / Math.max(1, blocks);
    if (!(coherence > LEAST_COHERENCE)) continue;
    weighted.re[k] = (inBand * coherence * re[k]!) / cross;
    weighted.im[k] = (inBand * coherence * im[k]!) / cross;
    certain[k] = (inBand * coherence) / Math.max(1e-4, 1 - coherence);
    total += inBand * coherence;
  }
  if (!(total > 0)) return null;
  const envelope = envelopeOf(weighted, size);
  const step = 1 / (FINER * rate);
  const isEmpty = spreadOf(certain, frequency) === 0;
  const peak = highest(envelope, () => true);
  if (isEmpty || peak < 0) return null;
  // beside a peak lies its own flank: as wide as the band is narrow
  const flank = Math.ceil(1 / (widthOf(certain, frequency) * step));
  const away = (i: number) => {
    const d = Math.abs(i - peak);
    return Math.min(d, envelope.length - d) > flank;
  };
  const next = highest(envelope, away);
  const ratio = next < 0 ? 0 : envelope[next]! / envelope[peak]!;
  const timeOf = (i: number) => (i > envelope.length / 2 ? i - envelope.length : i) * step;
  const fine = refined(spectra, certain, timeOf(peak));
  return {
    delayS: fine.delayS,
    spreadS: fine.spreadS / Math.sqrt(Math.max(1, blocks)),
    sure: 1 - ratio,
    nextS: ratio > LEAST_NEXT ? timeOf(next) : null,
  };
}

/** Envelope of the correlation, `FINER` times as fine as the samples. */
function envelopeOf({ re, im }: { re: Float64Array; im: Float64Array }, size: number): Float64Array {
  const wide = (of: Float64Array) => {
    const out = new Float64Array((FINER * size) / 2 + 1);
    out.set(of);
    return out;
  };
  const real = inverseRealFft({ re: wide(re), im: wide(im) });
  // turned by a quarter: the other part of the analytic signal
  const other = inverseRealFft({ re: wide(im), im: wide(re.map((v) => -v)) });
  return Float64Array.from(real, (v, i) => Math.hypot(v, other[i]!));
}

function highest(values: Float64Array, counts: (i: number) => boolean): number {
  let best = -1;
  for (let i = 0; i < values.length; i++) if (counts(i) && (best < 0 || values[i]! > values[best]!)) best = i;
  return best;
}

const meanOf = (weight: Float64Array, of: Float64Array): number => {
  let [sum, all] = [0, 0];
  for (let k = 0; k < weight.length; k++) {
    sum += weight[k]! * of[k]!;
    all += weight[k]!;
  }
  return sum / all;
};

/** Sum over frequencies of what each tells of a slope of the phase, (rad/s)^2. */
function spreadOf(weight: Float64Array, frequency: Float64Array): number {
  const mean = meanOf(weight, frequency);
  let sum = 0;
  for (let k = 0; k < weight.length; k++) sum += weight[k]! * (2 * Math.PI * (frequency[k]! - mean)) ** 2;
  return sum;
}

/** From the lowest to the highest frequency that counts, Hz. */
function widthOf(weight: Float64Array, frequency: Float64Array): number {
  const first = weight.findIndex((w) => w > 0);
  const last = weight.length - 1 - [...weight].reverse().findIndex((w) => w > 0);
  return Math.max(frequency[1]!, frequency[last]! - frequency[first]!);
}

/** A line through the phase that is left, its height free, each frequency by how certain it is. */
function refined(
  { frequency, re, im }: CrossSpectra,
  certain: Float64Array,
  about: number,
): { delayS: number; spreadS: number } {
  let delayS = about;
  const information = spreadOf(certain, frequency);
  const mean = meanOf(certain, frequency);
  // the height of the line and its slope lean on each other only by rounding: two rounds are enough
  for (let round = 0; round < 2; round++) {
    let [a, b] = [0, 0];
    const left = { re: new Float64Array(frequency.length), im: new Float64Array(frequency.length) };
    for (let k = 0; k < frequency.length; k++) {
      if (certain[k] === 0) continue;
      const turn = 2 * Math.PI * frequency[k]! * delayS;
      const [c, s, cross] = [Math.cos(turn), Math.sin(turn), Math.hypot(re[k]!, im[k]!)];
      left.re[k] = (re[k]! * c - im[k]! * s) / cross;
      left.im[k] = (im[k]! * c + re[k]! * s) / cross;
      a += certain[k]! * left.re[k]!;
      b += certain[k]! * left.im[k]!;
    }
    let slope = 0;
    for (let k = 0; k < frequency.length; k++) {
      if (certain[k] === 0) continue;
      const phase = Math.atan2(left.im[k]! * a - left.re[k]! * b, left.re[k]! * a + left.im[k]! * b);
      slope += certain[k]! * 2 * Math.PI * (frequency[k]! - mean) * phase;
    }
    delayS -= slope / information;
  }
  // the variance of a phase is (1 - c) / (2 c) for each block
  return { delayS, spreadS: Math.sqrt(1 / (2 * information)) };
}
