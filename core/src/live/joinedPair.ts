import { needWithin } from '../limits/index.js';
import { cosineStep, dbOfPower, gainOfDb } from '../signal/index.js';
import { withoutDelay, type TransferCurve } from './transferFunction.js';

/** A curve of a microphone on the floor and one at the ear above it, and how the floor's was fitted. */
export interface JoinedPair {
  curve: TransferCurve;
  /** the floor's was raised by this and made later by this, to fit the ear's */
  levelDb: number;
  delayS: number;
  /** how far the two differ in the overlap after that, RMS, dB */
  misfitDb: number;
}

/** Half the overlap around the crossover, octaves: there level and delay are fitted, and one curve passes into the other. */
const HALF_OVERLAP = 0.5;
/** The delay between the two is looked for over an octave to either side, within this, so finely. */
const FIT_OCTAVES = 1;
const MOST_DELAY_S = 0.02;
const DELAY_STEP_S = 2e-5;

/**
 * Two live curves on one grid made one, as `joinFloorAndEar` does with impulse responses: the floor's below the crossover, the
 * ear's above it. Powers pass into each other over an octave.
 * @returns null where one of them is not known in the overlap
 * @throws RangeError for differing grids, or a crossover outside 50 Hz to 8 kHz
 */
export function joinedPair(ear: TransferCurve, floor: TransferCurve, crossoverHz: number): JoinedPair | null {
  needWithin('joinedPair', 'crossover in Hz', crossoverHz, 50, 8000);
  const { frequency } = ear;
  if (floor.frequency.length !== frequency.length)
    throw new RangeError('joinedPair: the curves have different grids');
  const octavesOff = frequency.map((f) => Math.log2(f / crossoverHz));
  const known = (n: number) =>
    Math.hypot(ear.re[n]!, ear.im[n]!) > 0 && Math.hypot(floor.re[n]!, floor.im[n]!) > 0;
  const overlap = [...frequency.keys()].filter((n) => Math.abs(octavesOff[n]!) <= HALF_OVERLAP);
  if (overlap.length < 4 || !overlap.every(known)) return null;
  const delayS = fittedDelay(ear, floor, octavesOff);
  const late = withoutDelay(floor, -delayS);
  const power = ({ re, im }: TransferCurve, n: number) => re[n]! ** 2 + im[n]! ** 2;
  const sum = (of: (n: number) => number) => overlap.reduce((s, n) => s + of(n), 0);
  const levelDb = dbOfPower(sum((n) => power(ear, n)) / sum((n) => power(floor, n)));
  const misfitDb = Math.sqrt(
    sum((n) => (dbOfPower(power(ear, n) / power(floor, n)) - levelDb) ** 2) / overlap.length,
  );
  const gain = gainOfDb(levelDb);
  const curve: TransferCurve = {
    frequency,
    re: new Float64Array(frequency.length),
    im: new Float64Array(frequency.length),
    coherence: new Float64Array(frequency.length),
  };
  frequency.forEach((_, n) => {
    const share = cosineStep(octavesOff[n]!, -HALF_OVERLAP, HALF_OVERLAP); // the ear's
    // what one of them does not say is nothing where only the other counts
    const [er, ei] = share > 0 ? [ear.re[n]!, ear.im[n]!] : [0, 0];
    const [fr, fi] = share < 1 ? [gain * late.re[n]!, gain * late.im[n]!] : [0, 0];
    const both = share * (er * er + ei * ei) + (1 - share) * (fr * fr + fi * fi);
    // the phase is that of the mixture, so a disagreement makes no dip
    const [mr, mi] = [share * er + (1 - share) * fr, share * ei + (1 - share) * fi];
    const scale = Math.sqrt(both) / (Math.hypot(mr, mi) || 1);
    curve.re[n] = mr * scale;
    curve.im[n] = mi * scale;
    curve.coherence[n] =
      (share > 0 ? share * ear.coherence[n]! : 0) + (share < 1 ? (1 - share) * floor.coherence[n]! : 0);
  });
  return { curve, levelDb, delayS, misfitDb };
}

/** By how much the floor's curve comes later to fit the ear's best, seconds: the highest of their correlation about the crossover. */
function fittedDelay(ear: TransferCurve, floor: TransferCurve, octavesOff: Float64Array): number {
  const points = [...octavesOff.keys()].flatMap((n) => {
    const off = Math.abs(octavesOff[n]!) / FIT_OCTAVES;
    const [a, b, c, d] = [ear.re[n]!, ear.im[n]!, floor.re[n]!, floor.im[n]!];
    const size = Math.hypot(a, b) * Math.hypot(c, d);
    if (off >= 1 || !(size > 0)) return [];
    // phases alone count: dips of the ear's are where a reflection turns it
    const weight = (0.5 + 0.5 * Math.cos(Math.PI * off)) / Math.sqrt(size);
    return [{ f: ear.frequency[n]!, re: weight * (a * c + b * d), im: weight * (b * c - a * d) }];
  });
  const match = (delayS: number) =>
    points.reduce((sum, p) => {
      const turn = 2 * Math.PI * p.f * delayS;
      return sum + p.re * Math.cos(turn) - p.im * Math.sin(turn);
    }, 0);
  const steps = Math.round(MOST_DELAY_S / DELAY_STEP_S);
  const values = Array.from({ length: 2 * steps + 1 }, (_, i) => match((i - steps) * DELAY_STEP_S));
  let best = steps;
  values.forEach((v, i) => {
    if (v > values[best]!) best = i;
  });
  const [left, mid, right] = [values[best - 1] ?? 0, values[best]!, values[best + 1] ?? 0];
  return (best - steps + (0.5 * (left - right)) / (left - 2 * mid + right || 1)) * DELAY_STEP_S;
}
