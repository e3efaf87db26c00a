import { needAbove } from '../limits/index.js';
import { dbOfGain } from '../signal/index.js';
import { choose } from './choose.js';
import { LevelFit } from './levelFit.js';
import { lowShelvesBelow } from './lowShelvesBelow.js';
import type { FoundShape, ReadCurve, ReadOptions, ShapeErrors, ShapeReading, UsedPoints } from './reading.js';
import type { Shape } from './shape.js';
import { shapeTrace } from './shapeTrace.js';
import { phaseLeft, TurnFit } from './turnFit.js';
import { candidatesOf, type Candidate, type WantedShape } from './wanted.js';

/** Below this coherence a point says nothing. */
const LEAST_COHERENCE = 0.5;
/** So far below the loudest point a curve is its noise, dB. */
const DEEPEST_DB = 80;
const LEAST_POINTS = 12;
/** So many points are looked at while shapes are chosen; all of them when they are refined. */
const COARSE_POINTS = 160;
/** So many of each wish are tried without a restraint. */
const FINALISTS = 3;
/** While they are chosen, a gain of 10 dB has to be worth this many tenths of a dB over the whole curve. */
const RESTRAINT = 0.02;
/** Coherence tells noise; what is not noise is never better than this, as a part of 1 - coherence. */
const FLOOR = 0.01;

/**
 * Reads shapes from a curve: which frequencies, gains, qualities and orders circuits would have that do what the curve shows. Peaking
 * sections, shelves and passes from its level, each begun from many places and all refined together; then all-passes from the
 * phase that is left. Errors are those of least squares, widened where what is left is no noise (neighbours alike).
 * @throws RangeError for a curve that says too little, an all-pass without phase, or nothing wanted
 */
export function readShapes(
  curve: ReadCurve,
  wanted: readonly WantedShape[],
  { from, to, levelIsFree, rate }: ReadOptions,
): ShapeReading {
  needAbove('readShapes', 'upper frequency', to, from);
  if (wanted.length === 0) throw new RangeError('readShapes: no shape is looked for');
  const turning = wanted.filter((w) => w.kind === 'all-pass');
  if (turning.length > 0 && !curve.hasPhase)
    throw new RangeError('readShapes: an all-pass is read from the phase, which this curve has not');
  const used = within(curve, from, Math.min(to, rate === null ? Infinity : 0.49 * rate));
  if (used.frequency.length < LEAST_POINTS)
    throw new RangeError(
      `readShapes: ${used.frequency.length} points of the curve count between ${from} and ${to} Hz, at least ${LEAST_POINTS} are needed`,
    );
  const open = wanted.filter((w) => w.kind !== 'all-pass').map(candidatesOf);
  const levels = new LevelFit(used, rate, levelIsFree);
  const chosen = chooseLevels(used, open, rate, levelIsFree);
  const refined = levels.refined(chosen.model);
  const model = levelIsFree ? lowShelvesBelow(refined) : refined;
  const nextBest = chosen.nextBest.map((m) => m && levels.refined(m));
  const shapes = levels.shapesOf(model);
  const errors = levels.errorsOf(model);
  const found = foundOf(shapes, errors?.shapes ?? null, (w) => {
    const next = nextBest[w];
    return next ? { shape: levels.shapesOf(next)[w]!, left: levels.leftDb(next) } : null;
  });
  const turned = curve.hasPhase ? turnsOf(used, shapes, turning, rate) : null;
  return {
    shapes: wanted.map((w) => (w.kind === 'all-pass' ? turned!.found : found).shift()!),
    levelDb: model.levelDb,
    levelErrorDb: errors?.level ?? null,
    leftDb: levels.leftDb(model),
    leftDeg: turned && turned.leftDeg,
    delayS: turned && turned.delayS,
    points: used.frequency.length,
  };
}

/** What is left open decided on a part of the points: first with gains held back, then the best of it without. */
function chooseLevels(used: UsedPoints, open: Candidate[][], rate: number | null, levelIsFree: boolean) {
  const thin = (values: Float64Array) => thinned(values, Math.ceil(used.frequency.length / COARSE_POINTS));
  const [frequency, levelDb, weight] = [thin(used.frequency), thin(used.levelDb), thin(used.weight)];
  const points = frequency.length;
  const held = new LevelFit({ frequency, levelDb, weight }, rate, levelIsFree, RESTRAINT);
  const first = beginnings(open)
    .map((begin) => choose(open, held.grown(begin), points, (m, w, c) => held.replaced(m, w, c)))
    .reduce((a, b) => (b.model.sum < a.model.sum ? b : a));
  const free = new LevelFit({ frequency, levelDb, weight }, rate, levelIsFree);
  const few = first.ranked.map((candidates) => candidates.slice(0, FINALISTS));
  return choose(few, free.refined(first.model), points, (m, w, c) => free.replaced(m, w, c));
}

/** All-passes from the phase that shapes leave. */
function turnsOf(used: UsedPoints, shapes: Shape[], wanted: readonly WantedShape[], rate: number | null) {
  const left = phaseLeft(used, shapeTrace(shapes, used.frequency, rate));
  const fit = new TurnFit(used.frequency, left, used.weight, rate);
  const open = wanted.map(candidatesOf);
  const { model, nextBest } = choose(open, fit.grown(firsts(open)), used.frequency.length, (m, w, c) =>
    fit.replaced(m, w, c),
  );
  const found = foundOf(fit.shapesOf(model), fit.errorsOf(model), (w) => {
    const next = nextBest[w];
    return next ? { shape: fit.shapesOf(next)[w]!, left: fit.leftDeg(next) } : null;
  });
  return { found, leftDeg: fit.leftDeg(model), delayS: model.delayS };
}

const thinned = (values: Float64Array, every: number) => values.filter((_, n) => n % every === 0);

/** Choices to begin with: where many are open, from a gentle and from a steep one. */
const beginnings = <T>(open: readonly (readonly T[])[]): T[][] =>
  open.some((candidates) => candidates.length > 2)
    ? [1, 3].map((n) => open.map((candidates) => candidates[candidates.length > 2 ? n : 0]!))
    : [firsts(open)];

const firsts = <T>(open: readonly (readonly T[])[]): T[] => open.map((candidates) => candidates[0]!);

const foundOf = (
  shapes: readonly Shape[],
  errors: readonly ShapeErrors[] | null,
  nextBest: (w: number) => FoundShape['nextBest'],
): FoundShape[] =>
  shapes.map((shape, w) => ({
    shape,
    errors: errors?.[w] ?? { hz: null, gainDb: null, q: null },
    nextBest: nextBest(w),
  }));

function within({ frequency, re, im, coherence }: ReadCurve, from: number, to: number): UsedPoints {
  const size = re.map((v, n) => Math.hypot(v, im[n]!));
  const isSeen = (n: number) => frequency[n]! >= from && frequency[n]! <= to && size[n]! < Infinity;
  const loudest = size.reduce((most, v, n) => (isSeen(n) && v > most ? v : most), 0);
  const floor = loudest * 10 ** (-DEEPEST_DB / 20);
  const kept = [...frequency.keys()].filter(
    (n) => isSeen(n) && size[n]! > floor && !(coherence[n]! < LEAST_COHERENCE),
  );
  const of = (values: Float64Array) => Float64Array.from(kept, (n) => values[n]!);
  // the variance of a level goes with (1 - coherence) / coherence
  const weight = of(coherence).map((v) =>
    Number.isNaN(v) ? 1 : Math.sqrt(v / (1 - Math.min(1, v) + FLOOR)),
  );
  const mean = Math.sqrt(weight.reduce((sum, v) => sum + v * v, 0) / Math.max(1, weight.length));
  return {
    frequency: of(frequency),
    re: of(re),
    im: of(im),
    levelDb: of(size).map(dbOfGain),
    weight: weight.map((v) => v / mean),
  };
}
