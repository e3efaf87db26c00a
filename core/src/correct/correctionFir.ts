import { needWithin } from '../limits/index.js';
import {
  binFrequencies,
  cosineStep,
  fftSizeFor,
  interpolateLog,
  inverseRealFft,
  minimumPhaseOfLog,
  multiplyTraces,
  realFft,
  type ComplexTrace,
} from '../signal/index.js';

/** How a filter treats phase. */
export type PhaseStyle = 'minimum' | 'mixed' | 'linear';

/** Excess phase that the spots share, on the grid: see `sharedPhase`. */
export interface SharedPhase {
  radians: Float64Array;
  agreement: Float64Array;
}

export interface FirRequest {
  taps: number;
  rate: number;
  style: PhaseStyle;
  /** needed for `mixed` */
  shared?: SharedPhase | null;
  /** band in which the shared excess phase is undone, Hz */
  phaseSpan?: { from: number; to: number };
  /** what the filter must not go beyond, dB on the grid; cutting it to length would take it there */
  bounds?: { highDb: Float64Array; lowDb: Float64Array } | null;
  /** how far ahead of the main arrival a mixed filter may begin, seconds */
  preS?: number;
}

export interface CorrectionFir {
  fir: Float32Array;
  /** by how much the main arrival is later than without the filter, seconds */
  latencyS: number;
}

const ROUNDS = 4;
/** More than this is not smearing. */
const MOST_COMPENSATED_DB = 1;
/** Then so often what went beyond a bound is taken back, by more than it was, until hardly anything does. */
const BOUND_ROUNDS = 2;
const BOUND_STEP = 2;
const BOUND_DB = 0.08;
/** Nothing of a mixed filter sounds earlier ahead of the main arrival than this. */
export const MOST_PRE_S = 0.009;
/** Spots whose excess phases agree less than this are not helped by undoing their mean; from the second value on wholly. */
const AGREEMENT = { none: 0.7, whole: 0.92 };
/** Phase is undone up to here: above, it differs within the width of a head. */
const PHASE_SPAN = { from: 40, to: 1000 };

/**
 * FIR filter with a given gain over frequency. `minimum`: cepstral reconstruction, no latency. `linear`: symmetrical, half
 * its length late. `mixed`: the minimum-phase one, times the inverse of that part of the excess phase which the spots share
 * (after Maamar, Johansson and Sternad; see Cecchi, Carini and Spors 2018, 4.3), with nothing earlier than `preS` ahead of the
 * main arrival; what the cut does to the magnitude is undone by a minimum-phase filter, which adds nothing ahead.
 * @param frequency log grid, Hz; beyond its ends the outer gains go on
 * @param gainDb as long as `frequency`, finite
 * @returns taps in single precision, as a processor stores them
 * @throws RangeError for a count of taps or a gain out of range, or `mixed` without a shared phase
 */
export function correctionFir(
  frequency: Float64Array,
  gainDb: Float64Array,
  { taps, rate, style, shared = null, phaseSpan = PHASE_SPAN, bounds = null, preS = MOST_PRE_S }: FirRequest,
): CorrectionFir {
  if (!(Number.isInteger(taps) && taps >= 16 && taps <= 65536)) {
    throw new RangeError(`correctionFir: taps must be 16 to 65536, got ${taps}`);
  }
  needWithin('correctionFir', 'rate', rate, 1000, 1e6);
  needWithin('correctionFir', 'time ahead in s', preS, 0, 1);
  const bad = gainDb.findIndex((g) => !Number.isFinite(g));
  if (bad >= 0) throw new RangeError(`correctionFir: gain at ${frequency[bad]} Hz is ${gainDb[bad]}`);
  const size = fftSizeFor(8 * taps);
  const wanted = interpolateLog(frequency, gainDb, binFrequencies(size, rate));
  for (let k = 0; k < wanted.length; k++) wanted[k] = wanted[k]! * NEPERS;
  const within = bounds && {
    high: inNepers(frequency, bounds.highDb, binFrequencies(size / 2, rate)),
    low: inNepers(frequency, bounds.lowDb, binFrequencies(size / 2, rate)),
  };
  if (style !== 'mixed') {
    const make = style === 'linear' ? linear : minimum;
    const reached = (log: Float64Array) => logMagnitude(realFft(make(log, taps), 2 * (log.length - 1)));
    const fir = Float32Array.from(make(compensateTruncation(wanted, reached, within), taps));
    return { fir, latencyS: style === 'linear' ? taps / 2 / rate : 0 };
  }
  if (!shared) throw new RangeError('correctionFir: mixed needs the phase that the spots share');
  if (!(preS > 0 && preS <= MOST_PRE_S))
    throw new RangeError(`correctionFir: preS must be above 0 and at most ${MOST_PRE_S}, got ${preS}`);
  const lead = Math.min(Math.round(preS * rate), taps / 4);
  const phase = phaseFilter(frequency, shared, phaseSpan, size, rate, lead);
  const spectra = new Map<number, { spectrum: ComplexTrace; own: Float64Array }>();
  const phaseAt = (bins: number) => {
    const known = spectra.get(bins);
    if (known) return known;
    const spectrum = realFft(phase, bins);
    const made = { spectrum, own: logMagnitude(spectrum) };
    spectra.set(bins, made);
    return made;
  };
  /** The magnitude that the phase filter leaves to be made, by a minimum-phase filter with its last half faded. */
  const rest = (log: Float64Array) => {
    const { own } = phaseAt(2 * (log.length - 1));
    const less = new Float64Array(log.length);
    for (let k = 0; k < log.length; k++) less[k] = log[k]! - own[k]!;
    return minimum(less, taps - 2 * lead);
  };
  // one behind the other is the product of both: what cutting it to length takes from its faded end is next to nothing
  const reached = (log: Float64Array) => {
    const { own } = phaseAt(2 * (log.length - 1));
    const got = logMagnitude(realFft(rest(log), 2 * (log.length - 1)));
    for (let k = 0; k < got.length; k++) got[k] = got[k]! + own[k]!;
    return got;
  };
  const request = compensateTruncation(wanted, reached, within);
  const both = multiplyTraces(realFft(rest(request), size), phaseAt(size).spectrum);
  return { fir: Float32Array.from(inverseRealFft(both).subarray(0, taps)), latencyS: lead / rate };
}

/** dB to nepers, the natural logarithm of a magnitude, in which all is reckoned here. */
const NEPERS = Math.LN10 / 20;

function logMagnitude({ re, im }: ComplexTrace): Float64Array {
  const out = new Float64Array(re.length);
  for (let k = 0; k < out.length; k++) out[k] = 0.5 * Math.log(re[k]! * re[k]! + im[k]! * im[k]!);
  return out;
}

/**
 * What to ask a filter for so that it reaches a wanted magnitude: cutting it to length smears narrow peaks, so what is then
 * missing is asked for on top. That is as smooth as the filter is short, so it is found on bins twice as far apart.
 * @param wanted natural logarithm of the magnitude
 * @param reached the same of a filter that was asked for
 * @param within what it must not go beyond, on bins twice as far apart; kept to at last, at the price of what is wanted nearby
 */
function compensateTruncation(
  wanted: Float64Array,
  reached: (log: Float64Array) => Float64Array,
  within: { high: Float64Array; low: Float64Array } | null,
): Float64Array {
  const coarse = new Float64Array((wanted.length + 1) / 2);
  for (let k = 0; k < coarse.length; k++) coarse[k] = wanted[2 * k]!;
  const request = coarse.slice();
  const most = MOST_COMPENSATED_DB * NEPERS;
  for (let round = 0; round < ROUNDS; round++) {
    const got = reached(request);
    for (let k = 0; k < request.length; k++)
      request[k] = request[k]! + Math.max(-most, Math.min(most, coarse[k]! - got[k]!));
    // what goes beyond a bound on the way is taken back twice, so that less is left to do at last
    if (within && round > 0)
      for (let k = 1; k < request.length; k++) request[k] = request[k]! - beyondBound(got[k]!, within, k);
  }
  for (let round = 0; within && round < BOUND_ROUNDS; round++) {
    const got = reached(request);
    let most = 0;
    for (let k = 1; k < request.length; k++) {
      const beyond = beyondBound(got[k]!, within, k);
      request[k] = request[k]! - BOUND_STEP * beyond;
      most = Math.max(most, Math.abs(beyond));
    }
    if (most < BOUND_DB * NEPERS) break;
  }
  const fine = wanted.slice();
  for (let k = 0; k < fine.length; k++) {
    const [below, above] = [k >> 1, (k + 1) >> 1];
    fine[k] = fine[k]! + 0.5 * (request[below]! - coarse[below]! + request[above]! - coarse[above]!);
  }
  return fine;
}

/** Bounds at ascending frequencies, each that of the point of the grid below it: they change in steps. */
function inNepers(grid: Float64Array, db: Float64Array, bins: Float64Array): Float64Array {
  const out = new Float64Array(bins.length);
  let i = 0;
  for (let k = 0; k < out.length; k++) {
    while (i + 1 < grid.length && grid[i + 1]! <= bins[k]!) i++;
    out[k] = db[i]! * NEPERS;
  }
  return out;
}

/** By how much a value lies above its upper bound, or below its lower one where negative. */
const beyondBound = (
  got: number,
  { high, low }: { high: Float64Array; low: Float64Array },
  k: number,
): number => Math.max(0, got - high[k]!) - Math.max(0, low[k]! - got);

function minimum(log: Float64Array, taps: number): Float64Array {
  const fir = inverseRealFft(minimumPhaseOfLog(log)).subarray(0, taps);
  for (let i = taps >> 1; i < taps; i++) fir[i] = fir[i]! * cosineStep(i, taps, taps / 2);
  return fir;
}

/** Zero phase, delayed by half the length; both halves fade over their outer halves. */
function linear(log: Float64Array, taps: number): Float64Array {
  const middle = Math.floor(taps / 2);
  const impulse = inverseRealFft({ re: log.map(Math.exp), im: new Float64Array(log.length) });
  const n = impulse.length;
  return Float64Array.from({ length: taps }, (_, i) => {
    const t = i - middle;
    return impulse[(t + n) % n]! * cosineStep(Math.abs(t), middle, middle / 2);
  });
}

/** The inverse of the shared excess phase as a filter: `lead` samples ahead of its main arrival, as many and as many again after it. */
function phaseFilter(
  frequency: Float64Array,
  { radians, agreement }: SharedPhase,
  span: { from: number; to: number },
  size: number,
  rate: number,
  lead: number,
): Float64Array {
  const weight = frequency.map(
    (f, i) =>
      cosineStep(f, span.from / 2, span.from) *
      cosineStep(f, 2 * span.to, span.to) *
      cosineStep(agreement[i]!, AGREEMENT.none, AGREEMENT.whole),
  );
  const bins = binFrequencies(size, rate);
  // above its span nothing is turned
  const last = Math.min(bins.length - 1, Math.ceil((2 * span.to * size) / rate));
  const low = bins.subarray(0, last);
  const at = (values: Float64Array) => interpolateLog(frequency, values, low);
  // direction, not angle, is interpolated: an angle jumps where it wraps
  const [w, c, s] = [at(weight), at(radians.map(Math.cos)), at(radians.map(Math.sin))];
  const re = new Float64Array(bins.length).fill(1);
  const im = new Float64Array(bins.length);
  for (let k = 1; k < last; k++) {
    const angle = -w[k]! * Math.atan2(s[k]!, c[k]!);
    re[k] = Math.cos(angle);
    im[k] = Math.sin(angle);
  }
  const impulse = inverseRealFft({ re, im });
  const out = new Float64Array(3 * lead);
  for (let i = 0; i < out.length; i++) {
    const t = i - lead;
    out[i] =
      impulse[(t + size) % size]! * (t < 0 ? cosineStep(t, -lead, -lead / 2) : cosineStep(t, 2 * lead, lead));
  }
  return out;
}
