import { needAscending, needWithin } from '../limits/index.js';
import { powerOf, smoothPower, type ComplexTrace } from '../signal/index.js';
import { SHARED_DB } from './summation.js';

/** Levels are held against each other as the ear hears them, not dip by dip: smoothed over this part of an octave. */
const LEVEL_FRACTION = 12;
/** Less than this is noise, whatever it adds up to. */
const LEAST_COHERENCE = 0.5;
/** Where both lie so far below the weaker one's loudest, they are no part of what is heard: the ends of their slopes, and noise, dB. */
const HEARD_DB = 20;

/** Why two sources cannot be brought together. */
export type NoPair =
  /** nowhere are both within 10 dB */
  | { reason: 'no overlap'; apartDb: number }
  /** where they are, one of them is not coherent */
  | { reason: 'no coherence' };

/** Two sources at one place, one against the other, at each frequency. */
export interface PairReading {
  frequency: Float64Array;
  /** level of the second over the first, smoothed, dB */
  apartDb: Float64Array;
  /** how much each frequency counts: 1 where both are as loud, 0 where they are 10 dB apart or more, or not known */
  weight: Float64Array;
  /** phase of the second against the first, degrees, -180 to 180; NaN where it counts for nothing */
  phaseDeg: Float64Array;
  /** |a + b| / (|a| + |b|), 0 to 1 */
  efficiency: Float64Array;
  /** the ends of the shared band, Hz; between them it may be broken */
  band: { from: number; to: number };
  /** mean over the shared band on the axis of the traces (a logarithmic one), by weight */
  meanEfficiency: number;
}

/** The second source by coherence, where it was measured with one. */
interface Measured extends ComplexTrace {
  coherence?: Float64Array;
}

/**
 * What two sources do together at one place. The shared band is where their levels, smoothed over a twelfth of an octave, lie within
 * 10 dB, and not both of them more than 20 dB below the loudest of the weaker one; only there is a phase worth looking at.
 * @param first @param second on the same frequencies, ascending on a logarithmic axis; NaN where nothing is known
 * @throws RangeError for traces on different frequencies
 */
export function readPair(first: Measured, second: Measured): PairReading | NoPair {
  const { frequency } = first;
  needAscending('readPair', 'frequencies', frequency, 0);
  if (second.frequency.length !== frequency.length)
    throw new RangeError(
      `readPair: traces of ${frequency.length} and ${second.frequency.length} frequencies`,
    );
  const [firstPower, secondPower] = [smoothedPower(first), smoothedPower(second)];
  const apartDb = firstPower.map((p, n) => 10 * Math.log10(secondPower[n]! / p));
  const loudest = (power: Float64Array) => power.reduce((most, p) => (p > most ? p : most), 0);
  const leastPower = Math.min(loudest(firstPower), loudest(secondPower)) * 10 ** (-HEARD_DB / 10);
  const weight = new Float64Array(frequency.length);
  const phaseDeg = new Float64Array(frequency.length).fill(NaN);
  const efficiency = new Float64Array(frequency.length).fill(NaN);
  let [least, isIncoherent] = [Infinity, false];
  let [from, to, sum, weights] = [Infinity, 0, 0, 0];
  frequency.forEach((f, n) => {
    const [a, b, c, d] = [first.re[n]!, first.im[n]!, second.re[n]!, second.im[n]!];
    const [x, y] = [Math.hypot(a, b), Math.hypot(c, d)];
    if (!(x > 0 && y > 0)) return;
    efficiency[n] = Math.hypot(a + c, b + d) / (x + y);
    if (Math.max(firstPower[n]!, secondPower[n]!) < leastPower) return;
    const apart = Math.abs(apartDb[n]!);
    if (apart < least) least = apart;
    if (!(apart < SHARED_DB)) return;
    if ([first, second].some((t) => t.coherence && t.coherence[n]! < LEAST_COHERENCE)) {
      isIncoherent = true;
      return;
    }
    weight[n] = 1 - apart / SHARED_DB;
    phaseDeg[n] = (Math.atan2(d * a - c * b, c * a + d * b) * 180) / Math.PI;
    sum += weight[n]! * efficiency[n]!;
    weights += weight[n]!;
    from = Math.min(from, f);
    to = Math.max(to, f);
  });
  if (weights === 0)
    return isIncoherent ? { reason: 'no coherence' } : { reason: 'no overlap', apartDb: least };
  return {
    frequency,
    apartDb,
    weight,
    phaseDeg,
    efficiency,
    band: { from, to },
    meanEfficiency: sum / weights,
  };
}

/** Levels of one trace over another, each smoothed where it is known, dB; NaN where one of them is not. */
export function levelsApart(first: ComplexTrace, second: ComplexTrace): Float64Array {
  const [a, b] = [smoothedPower(first), smoothedPower(second)];
  return a.map((p, n) => 10 * Math.log10(b[n]! / p));
}

/** Power of a trace as levels are held against each other; NaN where nothing is known. */
export function smoothedPower(trace: ComplexTrace): Float64Array {
  const { frequency } = trace;
  const known = [...frequency.keys()].filter((n) => Math.hypot(trace.re[n]!, trace.im[n]!) > 0);
  const out = new Float64Array(frequency.length).fill(NaN);
  if (known.length < 2) return out;
  const f = Float64Array.from(known, (n) => frequency[n]!);
  const all = powerOf(trace);
  const power = smoothPower(
    f,
    Float64Array.from(known, (n) => all[n]!),
    LEVEL_FRACTION,
    f,
  );
  known.forEach((n, i) => (out[n] = power[i]!));
  return out;
}

/**
 * A phase as time: by how much the second source is late at a frequency, seconds; below 0 it leads. Never more than half a period:
 * what lies a whole period off looks alike at one frequency, and is told by how the phase goes on.
 */
export const lateS = (phaseDeg: number, hz: number): number => -phaseDeg / 360 / hz;

/** What a phase costs two sources that are equally loud, in dB of their sum: 0 in phase, 3 at a quarter turn, 6 at a third. */
export function lossDb(phaseDeg: number): number {
  needWithin('lossDb', 'phase in degrees', phaseDeg, -360, 360);
  return Math.abs(20 * Math.log10(Math.abs(Math.cos((phaseDeg * Math.PI) / 360))));
}
