import { sectionBiquad, type Section } from '../correct/index.js';
import { dbOfPower, gainOfDb, type RealArray } from '../signal/index.js';
import { complexOnGrid, type ComplexCurve } from './complexOnGrid.js';
import { crossoverBiquads, filteredCurve, type CrossoverFilter } from './joint.js';

/** What stands between the interface and a channel or the subwoofers, beside the crossover that is being chosen. */
export interface JointSide {
  fir: RealArray | null;
  sections: Section[];
  gainDb: number;
  delayS: number;
  inverted: boolean;
  /** what the processor had while it was measured, and what stands there instead */
  before: CrossoverFilter | null;
  after: CrossoverFilter | null;
}

/** What an old crossover took away is given back by no more than this: beyond it there is only noise. */
const MOST_BACK_DB = 30;

/** What a side does to what was measured: filter, gain, delay, polarity, and one crossover in place of another. */
export function sideCurve(
  { fir, sections, gainDb, delayS, inverted, before, after }: JointSide,
  way: 'highpass' | 'lowpass',
  frequency: Float64Array,
  rate: number,
): ComplexCurve {
  const flat = { re: frequency.map(() => 1), im: frequency.map(() => 0) };
  const filtered = fir ? complexOnGrid({ samples: fir, rate, zero: 0 }, frequency) : flat;
  const biquads = [...sections.map((s) => sectionBiquad(s, rate)), ...crossoverBiquads(way, after, rate)];
  const done = filteredCurve(filtered, frequency, biquads, rate, delayS, inverted ? -1 : 1);
  const was = filteredCurve(flat, frequency, crossoverBiquads(way, before, rate), rate);
  const gain = gainOfDb(gainDb);
  const least = gainOfDb(-MOST_BACK_DB) ** 2;
  // gain times done / was
  const share = was.re.map((re, k) => gain / Math.max(least, re ** 2 + was.im[k]! ** 2));
  const inverse = { re: was.re.map((v, k) => v * share[k]!), im: was.im.map((v, k) => -v * share[k]!) };
  return timesCurve(done, inverse);
}

/** What an input that is fed to an output hears of it. */
export const fedCurve = (
  curve: ComplexCurve,
  frequency: Float64Array,
  { gainDb, lowPass }: { gainDb: number; lowPass: CrossoverFilter | null },
  rate: number,
): ComplexCurve => {
  const gain = gainOfDb(gainDb);
  const { re, im } = filteredCurve(curve, frequency, crossoverBiquads('lowpass', lowPass, rate), rate);
  return { re: re.map((v) => gain * v), im: im.map((v) => gain * v) };
};

export const timesCurve = (a: ComplexCurve, b: ComplexCurve): ComplexCurve => ({
  re: a.re.map((v, k) => v * b.re[k]! - a.im[k]! * b.im[k]!),
  im: a.im.map((v, k) => v * b.re[k]! + a.re[k]! * b.im[k]!),
});

export const plusCurve = (a: ComplexCurve, b: ComplexCurve): ComplexCurve => ({
  re: a.re.map((v, k) => v + b.re[k]!),
  im: a.im.map((v, k) => v + b.im[k]!),
});

/** Power average over curves, dB. */
export const averageLevel = (curves: ComplexCurve[]): Float64Array =>
  curves[0]!.re.map((_, k) =>
    dbOfPower(curves.reduce((sum, { re, im }) => sum + re[k]! ** 2 + im[k]! ** 2, 0) / curves.length),
  );

/** How much louder curves are than others, their power averages held against each other: mean over a band, dB. */
export function levelApart(
  curves: ComplexCurve[],
  others: ComplexCurve[],
  frequency: Float64Array,
  band: { from: number; to: number },
): number {
  const [a, b] = [averageLevel(curves), averageLevel(others)];
  const inBand = [...frequency].flatMap((f, k) => (f >= band.from && f <= band.to ? [a[k]! - b[k]!] : []));
  return inBand.reduce((sum, v) => sum + v, 0) / inBand.length;
}
