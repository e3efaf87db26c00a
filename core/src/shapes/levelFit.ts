import { dbOfPower, leastSquares, type LeastSquares } from '../signal/index.js';
import { multiplyPower, seenBy } from './shapeTrace.js';
import type { Shape } from './shape.js';
import { spreadOf } from './spread.js';
import type { Candidate } from './wanted.js';
import type { ShapeErrors, UsedPoints } from './reading.js';

/** Figures of one candidate. */
export interface Figures {
  candidate: Candidate;
  hz: number;
  gainDb: number;
  q: number;
}

/** Shapes and a level that is the same everywhere, and what they leave: a sum of weighted squares. */
export interface LevelModel {
  figures: Figures[];
  levelDb: number;
  sum: number;
}

const MOST_GAIN_DB = 48;
const STARTS_PER_OCTAVE = 4;
/** So many of the best starts are refined. */
const REFINED = 3;
const ROUNDS_WHILE_GROWING = 12;
const ROUNDS_AT_THE_END = 60;
const STEP = 1e-4;
/** Whose turn it is when shapes are grown, by kind. */
const ORDERS: string[][] = [
  ['pass', 'peaking', 'shelf'],
  ['pass', 'shelf', 'peaking'],
  ['peaking', 'shelf', 'pass'],
];

/** Shapes fitted to the level of a curve. */
export class LevelFit {
  private readonly frequency: Float64Array;
  private readonly levelDb: Float64Array;
  private readonly weight: Float64Array;
  private readonly seen: Float64Array;

  /** @param restraint dB of residual at every point for each dB of gain: keeps a search from large gains that undo each other */
  constructor(
    { frequency, levelDb, weight }: Pick<UsedPoints, 'frequency' | 'levelDb' | 'weight'>,
    private readonly rate: number | null,
    private readonly levelIsFree: boolean,
    private readonly restraint = 0,
  ) {
    this.frequency = frequency;
    this.levelDb = levelDb;
    this.weight = weight;
    this.seen = frequency.map((f) => seenBy(rate, f));
  }

  shapesOf = ({ figures }: LevelModel): Shape[] =>
    figures.map(({ candidate, hz, gainDb, q }) => candidate.make(hz, gainDb, q));

  /**
   * One shape after the other, in several orders, since broad shapes take what narrow ones explain and the other way round.
   */
  grown(candidates: readonly Candidate[]): LevelModel {
    return ordersOf(candidates)
      .map((order) => this.grownIn(order, candidates))
      .reduce((a, b) => (b.sum < a.sum ? b : a));
  }

  private grownIn(order: readonly number[], candidates: readonly Candidate[]): LevelModel {
    let model = this.levelled({ figures: [], levelDb: 0, sum: Infinity });
    for (const w of order) model = this.withOneMore(model, candidates[w]!, model.figures.length);
    // in the order that was asked for
    return { ...model, figures: candidates.map((_, w) => model.figures[order.indexOf(w)]!) };
  }

  /** The same with another candidate in one place. */
  replaced(model: LevelModel, w: number, candidate: Candidate): LevelModel {
    const others = model.figures.filter((_, i) => i !== w);
    return this.withOneMore({ ...model, figures: others }, candidate, w);
  }

  /** Root mean square of what is left, dB. */
  leftDb = ({ sum }: LevelModel): number => Math.sqrt(sum / this.frequency.length);

  /** Standard errors; null where figures cannot be told apart. */
  errorsOf(model: LevelModel): { level: number | null; shapes: ShapeErrors[] } | null {
    const { fit } = this.fitted(model, 1);
    if (!fit.inverse) return null;
    const spread = spreadOf(fit.residuals.subarray(0, this.weight.length), fit.parameters.length);
    const error = (i: number) => (fit.atBound[i] ? null : Math.sqrt(spread * fit.inverse![i]![i]!));
    let i = this.levelIsFree ? 1 : 0;
    return {
      level: this.levelIsFree ? error(0) : null,
      shapes: model.figures.map(({ candidate }) => ({
        hz: error(i++),
        gainDb: candidate.hasGain ? error(i++) : null,
        q: candidate.q ? error(i++) : null,
      })),
    };
  }

  private shapeDb({ candidate, hz, gainDb, q }: Figures): Float64Array {
    const power = new Float64Array(this.seen.length).fill(1);
    multiplyPower(candidate.make(hz, gainDb, q), this.seen, this.rate, power);
    return power.map(dbOfPower);
  }

  private modelledDb({ figures, levelDb }: Pick<LevelModel, 'figures' | 'levelDb'>): Float64Array {
    const power = new Float64Array(this.seen.length).fill(1);
    for (const { candidate, hz, gainDb, q } of figures)
      multiplyPower(candidate.make(hz, gainDb, q), this.seen, this.rate, power);
    return power.map((p) => levelDb + dbOfPower(p));
  }

  /** Of every point; behind them what holds the gains back. */
  private residualsOf(model: Pick<LevelModel, 'figures' | 'levelDb'>): Float64Array {
    const { weight, levelDb } = this;
    const held = this.restraint * Math.sqrt(weight.length);
    const out = new Float64Array(weight.length + model.figures.length);
    this.modelledDb(model).forEach((v, n) => (out[n] = weight[n]! * (v - levelDb[n]!)));
    model.figures.forEach(({ gainDb }, w) => (out[weight.length + w] = held * gainDb));
    return out;
  }

  /** By level, and by the frequency, gain and q of each shape; each changes its own shape alone. */
  private derivatives({ figures }: LevelModel): Float64Array[] {
    const { weight } = this;
    const column = () => new Float64Array(weight.length + figures.length);
    const by = (of: (step: number) => Figures) => {
      const [above, below] = [this.shapeDb(of(STEP)), this.shapeDb(of(-STEP))];
      const out = column();
      above.forEach((a, n) => (out[n] = (weight[n]! * (a - below[n]!)) / (2 * STEP)));
      return out;
    };
    const byGain = (f: Figures, w: number) => {
      const out = by((step) => ({ ...f, gainDb: f.gainDb + step }));
      out[weight.length + w] = this.restraint * Math.sqrt(weight.length);
      return out;
    };
    const byLevel = column();
    byLevel.set(weight);
    return [
      ...(this.levelIsFree ? [byLevel] : []),
      ...figures.flatMap((f, w) => [
        by((step) => ({ ...f, hz: f.hz * Math.exp(step) })),
        ...(f.candidate.hasGain ? [byGain(f, w)] : []),
        ...(f.candidate.q ? [by((step) => ({ ...f, q: f.q * Math.exp(step) }))] : []),
      ]),
    ];
  }

  /** With the level that leaves least, where it is free. */
  private levelled(model: LevelModel): LevelModel {
    const { weight } = this;
    const left = this.residualsOf(model);
    if (this.levelIsFree) {
      const total = weight.reduce((sum, w) => sum + w * w, 0);
      const mean = weight.reduce((sum, w, n) => sum + w * left[n]!, 0) / total;
      return { ...model, levelDb: model.levelDb - mean, sum: squares(left) - total * mean * mean };
    }
    return { ...model, sum: squares(left) };
  }

  /** With one more shape, begun where it leaves least, and all refined. */
  private withOneMore(model: LevelModel, candidate: Candidate, place: number): LevelModel {
    const starts = this.startsOf(model, candidate)
      .map((figures) => this.levelled({ ...model, figures: model.figures.toSpliced(place, 0, figures) }))
      .sort((a, b) => a.sum - b.sum);
    const best = starts.slice(0, REFINED).map((start) => this.refined(start, ROUNDS_WHILE_GROWING));
    return this.refined(best.reduce((a, b) => (b.sum < a.sum ? b : a)));
  }

  private startsOf(model: LevelModel, candidate: Candidate): Figures[] {
    const { frequency } = this;
    const left = this.modelledDb(model).map((v, n) => this.levelDb[n]! - v);
    const [low, high] = this.reach();
    const starts: Figures[] = [];
    const count = Math.ceil(STARTS_PER_OCTAVE * Math.log2(high / low));
    for (let k = 0; k <= count; k++) {
      const hz = low * (high / low) ** (k / count);
      if (this.rate !== null && hz >= this.rate / 2) continue;
      for (const q of candidate.q?.starts ?? [1])
        for (const gainDb of candidate.hasGain ? gainsAt(candidate, hz, frequency, left) : [0])
          starts.push({ candidate, hz, gainDb, q });
    }
    return starts;
  }

  /** Where the frequency of a shape may lie: an octave beyond what is seen. */
  private reach(): [number, number] {
    const most = this.rate === null ? Infinity : 0.49 * this.rate;
    return [this.frequency[0]! / 2, Math.min(most, 2 * this.frequency.at(-1)!)];
  }

  /** All figures refined together. */
  refined(model: LevelModel, rounds = ROUNDS_AT_THE_END): LevelModel {
    const { fit, modelOf } = this.fitted(this.levelled(model), rounds);
    return { ...modelOf(fit.parameters), sum: fit.sum };
  }

  private fitted(model: LevelModel, rounds: number) {
    const [low, high] = this.reach().map(Math.log) as [number, number];
    const start: number[] = [];
    const [least, most]: [number[], number[]] = [[], []];
    const add = (value: number, from: number, to: number) => {
      start.push(value);
      least.push(from);
      most.push(to);
    };
    if (this.levelIsFree) add(model.levelDb, -200, 200);
    for (const { candidate, hz, gainDb, q } of model.figures) {
      add(Math.log(hz), low, high);
      if (candidate.hasGain) add(gainDb, -MOST_GAIN_DB, MOST_GAIN_DB);
      if (candidate.q) add(Math.log(q), Math.log(candidate.q.least), Math.log(candidate.q.most));
    }
    const modelOf = (p: readonly number[]): LevelModel => {
      let i = this.levelIsFree ? 1 : 0;
      return {
        levelDb: this.levelIsFree ? p[0]! : 0,
        sum: NaN,
        figures: model.figures.map(({ candidate }) => ({
          candidate,
          hz: Math.exp(p[i++]!),
          gainDb: candidate.hasGain ? p[i++]! : 0,
          q: candidate.q ? Math.exp(p[i++]!) : 1,
        })),
      };
    };
    const fit: LeastSquares = leastSquares({
      start,
      least,
      most,
      rounds,
      residuals: (p) => this.residualsOf(modelOf(p)),
      jacobian: (p) => this.derivatives(modelOf(p)),
    });
    return { fit, modelOf };
  }
}

const squares = (r: Float64Array) => r.reduce((sum, v) => sum + v * v, 0);

/** Orders in which candidates are grown, as their places; each once. */
function ordersOf(candidates: readonly Candidate[]): number[][] {
  const kinds = candidates.map(({ make }) => make(1000, 0, 1).kind);
  const orders = ORDERS.map((order) => {
    const turn = (w: number) => order.findIndex((part) => kinds[w]!.endsWith(part));
    return [...kinds.keys()].sort((a, b) => turn(a) - turn(b));
  });
  return [...new Map(orders.map((o) => [o.join(), o])).values()];
}

/** Gains to begin with: what is left at a peak, or on the raised side of a shelf, against what is left elsewhere. */
function gainsAt(candidate: Candidate, hz: number, frequency: Float64Array, left: Float64Array): number[] {
  const { kind } = candidate.make(hz, 0, 1);
  const mean = (of: (f: number) => boolean) => {
    const values = left.filter((_, n) => of(frequency[n]!));
    return values.length > 0 ? values.reduce((a, b) => a + b, 0) / values.length : 0;
  };
  const raised =
    kind === 'peaking'
      ? (f: number) => Math.abs(Math.log2(f / hz)) < 0.1
      : kind === 'low shelf'
        ? (f: number) => f < hz / 1.4
        : (f: number) => f > 1.4 * hz;
  const away =
    kind === 'peaking'
      ? (f: number) => Math.abs(Math.log2(f / hz)) > 1
      : kind === 'low shelf'
        ? (f: number) => f > 1.4 * hz
        : (f: number) => f < hz / 1.4;
  const gain = mean(raised) - mean(away);
  const held = Math.min(MOST_GAIN_DB / 2, Math.max(-MOST_GAIN_DB / 2, gain));
  return [held, 1.6 * held];
}
