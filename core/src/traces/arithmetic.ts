import { averageCurves, withoutDelay } from '../live/index.js';
import { needWithin } from '../limits/index.js';
import {
  allPass,
  biquadTrace,
  binFrequencies,
  cosineStep,
  dbOfGain,
  gainOfDb,
  interpolateLog,
  minimumPhaseOfLog,
} from '../signal/index.js';
import { onSharedPoints, type LibraryCurve } from './libraryCurve.js';

type Complex = [re: number, im: number];

/** Point by point over curves that share their points; what one of them does not know, the result does not. */
function pointwise(
  curves: readonly LibraryCurve[],
  hasPhase: boolean,
  of: (values: Complex[]) => Complex,
): LibraryCurve {
  const shared = onSharedPoints(curves);
  const { frequency } = shared[0]!;
  const out: LibraryCurve = {
    frequency,
    re: new Float64Array(frequency.length),
    im: new Float64Array(frequency.length),
    coherence: new Float64Array(frequency.length),
    hasPhase,
  };
  for (let n = 0; n < frequency.length; n++) {
    const [re, im] = of(shared.map((c): Complex => [c.re[n]!, c.im[n]!]));
    out.re[n] = re;
    out.im[n] = im;
    // a result is no surer than the least sure of what it rests on
    const known = shared.map((c) => c.coherence[n]!).filter((c) => !Number.isNaN(c));
    out.coherence[n] = known.length > 0 ? Math.min(...known) : NaN;
  }
  return out;
}

function needPhase(what: string, curves: readonly LibraryCurve[]): void {
  if (curves.some((c) => !c.hasPhase))
    throw new RangeError(`${what}: a curve without a phase has none to add`);
}

/** Complex sum: what is heard when all sound together. @throws RangeError where one has no phase */
export function sumOfCurves(curves: readonly LibraryCurve[]): LibraryCurve {
  needPhase('sumOfCurves', curves);
  return pointwise(curves, true, (values) =>
    values.reduce(([a, b], [c, d]): Complex => [a + c, b + d], [0, 0]),
  );
}

/** Complex difference, the first less the second. @throws RangeError where one has no phase */
export function differenceOfCurves(first: LibraryCurve, second: LibraryCurve): LibraryCurve {
  needPhase('differenceOfCurves', [first, second]);
  return pointwise([first, second], true, ([a, b]) => [a![0] - b![0], a![1] - b![1]]);
}

/** Product: one behind the other. Where one has no phase, that of the magnitudes. */
export function productOfCurves(curves: readonly LibraryCurve[]): LibraryCurve {
  const complex = curves.every((c) => c.hasPhase);
  return pointwise(asMagnitudes(curves, complex), complex, (values) =>
    values.reduce(([a, b], [c, d]): Complex => [a * c - b * d, a * d + b * c], [1, 0]),
  );
}

/** Ratio: the first over the second, their difference in dB and degrees. Where one has no phase, that of the magnitudes. */
export function ratioOfCurves(first: LibraryCurve, second: LibraryCurve): LibraryCurve {
  const complex = first.hasPhase && second.hasPhase;
  return pointwise(asMagnitudes([first, second], complex), complex, ([a, b]) => {
    const power = b![0] ** 2 + b![1] ** 2;
    if (!(power > 0)) return [NaN, NaN];
    return [(a![0] * b![0] + a![1] * b![1]) / power, (a![1] * b![0] - a![0] * b![1]) / power];
  });
}

/** One over a curve. */
export const inverseOfCurve = (curve: LibraryCurve): LibraryCurve =>
  pointwise([curve], curve.hasPhase, ([a]) => {
    const power = a![0] ** 2 + a![1] ** 2;
    return power > 0 ? [a![0] / power, -a![1] / power] : [NaN, NaN];
  });

const asMagnitudes = (curves: readonly LibraryCurve[], complex: boolean): LibraryCurve[] =>
  complex ? [...curves] : curves.map(magnitudeOf);

const magnitudeOf = (curve: LibraryCurve): LibraryCurve => ({
  ...curve,
  re: curve.re.map((v, n) => Math.hypot(v, curve.im[n]!)),
  im: curve.im.map(() => 0),
  hasPhase: false,
});

/** How curves are averaged; `level` is the mean of their levels in dB. */
export type CurveAverage = 'power' | 'complex' | 'coherence' | 'level';

/**
 * An average of curves. Those of power and of level have no phase where one of the curves has none.
 * @throws RangeError for a complex average of curves without a phase
 */
export function averageOfCurves(curves: readonly LibraryCurve[], how: CurveAverage): LibraryCurve {
  if (how === 'complex' || how === 'coherence') needPhase('averageOfCurves', curves);
  const shared = onSharedPoints(curves);
  const hasPhase = curves.every((c) => c.hasPhase);
  if (how !== 'level') {
    const averaged = { ...averageCurves(shared, how), hasPhase };
    return hasPhase ? averaged : magnitudeOf(averaged);
  }
  return pointwise(curves, false, (values) => {
    const mean = values.reduce((sum, [a, b]) => sum + dbOfGain(Math.hypot(a, b)), 0) / values.length;
    return [gainOfDb(mean), 0];
  });
}

/** The largest, or the smallest, level of all at each frequency; magnitudes. */
export const extremeOfCurves = (
  curves: readonly LibraryCurve[],
  which: 'largest' | 'smallest',
): LibraryCurve =>
  pointwise(curves, false, (values) => {
    const sizes = values.map(([a, b]) => Math.hypot(a, b));
    return [which === 'largest' ? Math.max(...sizes) : Math.min(...sizes), 0];
  });

/**
 * Two curves as one: the first below a frequency, the second above it, over some octaves of crossfade; complex where both have
 * a phase.
 * @param octaves width of the crossfade; 0 for a cut
 */
export function splicedCurves(
  low: LibraryCurve,
  high: LibraryCurve,
  atHz: number,
  octaves: number,
): LibraryCurve {
  needWithin('splicedCurves', 'frequency in Hz', atHz, 1, 1e6);
  needWithin('splicedCurves', 'octaves', octaves, 0, 10);
  const complex = low.hasPhase && high.hasPhase;
  const [a, b] = onSharedPoints(asMagnitudes([low, high], complex)) as [LibraryCurve, LibraryCurve];
  const share = a.frequency.map((f) =>
    octaves === 0 ? Number(f >= atHz) : cosineStep(Math.log2(f / atHz), -octaves / 2, octaves / 2),
  );
  // where one counts for nothing, it need not be known
  const mix = (x: Float64Array, y: Float64Array) =>
    x.map((v, n) => (share[n] === 0 ? v : share[n] === 1 ? y[n]! : (1 - share[n]!) * v + share[n]! * y[n]!));
  return {
    frequency: a.frequency,
    re: mix(a.re, b.re),
    im: mix(a.im, b.im),
    coherence: mix(a.coherence, b.coherence),
    hasPhase: complex,
  };
}

/** A curve without a delay: earlier by so much. @param delayS seconds */
export function delayRemoved(curve: LibraryCurve, delayS: number): LibraryCurve {
  needPhase('delayRemoved', [curve]);
  return { ...curve, ...withoutDelay(curve, delayS) };
}

/** The rate of the transforms and sections that curves go through, Hz: high enough that they are as analogue up to 20 kHz. */
const RATE = 96_000;
const SIZE = 1 << 17;

/** A curve behind an all-pass of second order, bilinear at 96 kHz. */
export function allPassed(curve: LibraryCurve, hz: number, q: number): LibraryCurve {
  needPhase('allPassed', [curve]);
  const turn = biquadTrace([allPass(hz, q, RATE)], curve.frequency, RATE);
  return productOfCurves([curve, { ...turn, coherence: curve.frequency.map(() => NaN), hasPhase: true }]);
}

/**
 * The minimum-phase part of a curve: its level with the least phase that a causal system of that level has (Hilbert transform of its
 * logarithm). Beyond its ends the level goes on as it went in the last half octave; so in the outermost octaves it is a guess.
 */
export function minimumPhasePart(curve: LibraryCurve): LibraryCurve {
  const known = [...curve.frequency.keys()].filter((n) => Math.hypot(curve.re[n]!, curve.im[n]!) > 0);
  if (known.length < 4) throw new RangeError('minimumPhasePart: the curve is known nowhere');
  const f = known.map((n) => curve.frequency[n]!);
  const log = known.map((n) => Math.log(Math.hypot(curve.re[n]!, curve.im[n]!)));
  const extended = withEnds(f, log);
  const bins = binFrequencies(SIZE, RATE);
  const level = interpolateLog(extended.f, extended.log, bins);
  const { re, im } = minimumPhaseOfLog(level);
  const step = RATE / SIZE;
  const at = (of: Float64Array, hz: number) => {
    const k = Math.floor(hz / step);
    const share = hz / step - k;
    return (1 - share) * of[k]! + share * of[k + 1]!;
  };
  // level as it is, phase from the transform
  const phase = curve.frequency.map((hz) => Math.atan2(at(im, hz), at(re, hz)));
  const size = curve.re.map((v, n) => Math.hypot(v, curve.im[n]!));
  return {
    ...curve,
    re: size.map((v, n) => v * Math.cos(phase[n]!)),
    im: size.map((v, n) => v * Math.sin(phase[n]!)),
    hasPhase: true,
  };
}

/** What is left of a curve when its minimum-phase part is taken out: a level of 0 dB, and the excess phase. */
export function excessPhasePart(curve: LibraryCurve): LibraryCurve {
  needPhase('excessPhasePart', [curve]);
  return ratioOfCurves(curve, minimumPhasePart(curve));
}

const HALF_OCTAVE = Math.SQRT2;
/** Beyond its ends a curve is continued down to and up to here, Hz. */
const [LOWEST, HIGHEST] = [0.5, RATE / 2];

/** A level (natural logarithm) continued at both ends with the slope of its last half octave. */
function withEnds(f: readonly number[], log: readonly number[]): { f: Float64Array; log: Float64Array } {
  const last = f.length - 1;
  const slope = (from: number, to: number) => (log[to]! - log[from]!) / Math.log(f[to]! / f[from]!);
  const inner = Math.max(
    1,
    f.findIndex((v) => v >= f[0]! * HALF_OCTAVE),
  );
  let outer = last - 1;
  while (outer > 0 && f[outer]! > f[last]! / HALF_OCTAVE) outer--;
  const low = log[0]! + slope(0, inner) * Math.log(LOWEST / f[0]!);
  const high = log[last]! + slope(outer, last) * Math.log(HIGHEST / f[last]!);
  return {
    f: Float64Array.from([LOWEST, ...f, HIGHEST]),
    log: Float64Array.from([low, ...log, high]),
  };
}
