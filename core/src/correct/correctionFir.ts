import {
  binFrequencies,
  cosineStep,
  dbOfPower,
  fftSizeFor,
  gainOfDb,
  interpolateLog,
  inverseRealFft,
  minimumPhase,
  multiplyTraces,
  powerOf,
  realFft,
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
  /** how far ahead of the main arrival a mixed filter may begin, seconds */
  preS?: number;
}

export interface CorrectionFir {
  fir: Float32Array;
  /** by how much the main arrival is later than without the filter, seconds */
  latencyS: number;
}

const MENDING_ROUNDS = 4;
/** More than this is not smearing. */
const MOST_MENDED_DB = 1;
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
  { taps, rate, style, shared = null, phaseSpan = PHASE_SPAN, preS = MOST_PRE_S }: FirRequest,
): CorrectionFir {
  if (!(Number.isInteger(taps) && taps >= 16 && taps <= 65536)) {
    throw new RangeError(`correctionFir: taps must be 16 to 65536, got ${taps}`);
  }
  const bad = gainDb.findIndex((g) => !Number.isFinite(g));
  if (bad >= 0) throw new RangeError(`correctionFir: gain at ${frequency[bad]} Hz is ${gainDb[bad]}`);
  const size = fftSizeFor(8 * taps);
  const asked = interpolateLog(frequency, gainDb, binFrequencies(size, rate));
  if (style === 'linear') return { fir: linear(asked, taps), latencyS: taps / 2 / rate };
  if (style === 'minimum')
    return { fir: mended(asked, taps, (wanted) => minimum(wanted, taps)), latencyS: 0 };
  if (!shared) throw new RangeError('correctionFir: mixed needs the phase that the spots share');
  if (!(preS > 0 && preS <= MOST_PRE_S))
    throw new RangeError(`correctionFir: preS must be above 0 and at most ${MOST_PRE_S}, got ${preS}`);
  const lead = Math.min(Math.round(preS * rate), taps / 4);
  const phase = phaseFilter(frequency, shared, phaseSpan, size, rate, lead);
  const spectrum = realFft(phase, size);
  const ownDb = powerOf(spectrum).map(dbOfPower);
  return {
    fir: mended(asked, taps, (wanted) => {
      // magnitude by a minimum-phase filter, its last half faded; then the phase filter ahead of it
      const rest = minimum(
        wanted.map((w, k) => w - ownDb[k]!),
        taps - 2 * lead,
      );
      const both = inverseRealFft(multiplyTraces(realFft(rest, size), spectrum));
      return Float32Array.from(both.subarray(0, taps));
    }),
    latencyS: lead / rate,
  };
}

/** A filter from wanted levels; cutting it to length smears narrow peaks, so what is then missing is asked for on top. */
function mended(
  asked: Float64Array,
  taps: number,
  make: (wanted: Float64Array) => Float32Array,
): Float32Array {
  const size = 2 * (asked.length - 1);
  let request = asked;
  for (let round = 0; round < MENDING_ROUNDS; round++) {
    const got = powerOf(realFft(make(request), size)).map(dbOfPower);
    request = request.map(
      (g, k) => g + Math.max(-MOST_MENDED_DB, Math.min(MOST_MENDED_DB, asked[k]! - got[k]!)),
    );
  }
  return make(request);
}

function minimum(levels: Float64Array, taps: number): Float32Array {
  const impulse = inverseRealFft(minimumPhase(levels.map(gainOfDb)));
  const fir = new Float32Array(taps);
  for (let i = 0; i < taps; i++) fir[i] = impulse[i]! * cosineStep(i, taps, taps / 2);
  return fir;
}

/** Zero phase, delayed by half the length; both halves fade over their outer halves. */
function linear(asked: Float64Array, taps: number): Float32Array {
  const middle = Math.floor(taps / 2);
  return mended(asked, taps, (wanted) => {
    const impulse = inverseRealFft({
      re: wanted.map(gainOfDb),
      im: new Float64Array(wanted.length),
    });
    const n = impulse.length;
    return Float32Array.from({ length: taps }, (_, i) => {
      const t = i - middle;
      return impulse[(t + n) % n]! * cosineStep(Math.abs(t), middle, middle / 2);
    });
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
  const at = (values: Float64Array) => interpolateLog(frequency, values, bins);
  // direction, not angle, is interpolated: an angle jumps where it wraps
  const [w, c, s] = [at(weight), at(radians.map(Math.cos)), at(radians.map(Math.sin))];
  const re = new Float64Array(bins.length);
  const im = new Float64Array(bins.length);
  for (let k = 0; k < bins.length; k++) {
    const angle = -w[k]! * Math.atan2(s[k]!, c[k]!);
    re[k] = Math.cos(angle);
    im[k] = k === 0 || k === bins.length - 1 ? 0 : Math.sin(angle);
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
