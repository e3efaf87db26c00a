import { centralDifferences, leastSquares } from '../signal/index.js';
import type { ShapeErrors, UsedPoints } from './reading.js';
import type { AllPassShape, Shape } from './shape.js';
import { addShapePhase } from './shapeTrace.js';
import { spreadOf } from './spread.js';
import type { Candidate } from './wanted.js';

interface Turn {
  candidate: Candidate;
  hz: number;
  q: number;
}

/** All-passes, a delay and a polarity, and what they leave: a sum of weighted squares, radians. */
export interface TurnModel {
  turns: Turn[];
  delayS: number;
  inverted: boolean;
  sum: number;
}

const STARTS_PER_OCTAVE = 4;
const REFINED = 4;
const STEP = 1e-4;
/** A delay counts in these, seconds, so that its figures are as large as those of the others. */
const DELAY_UNIT_S = 1e-4;

/** All-passes fitted to a phase, radians, together with a delay and a polarity. */
export class TurnFit {
  private readonly unwrapped: Float64Array;

  constructor(
    private readonly frequency: Float64Array,
    phase: Float64Array,
    private readonly weight: Float64Array,
    private readonly rate: number | null,
  ) {
    this.unwrapped = unwrap(phase);
  }

  grown(candidates: readonly Candidate[]): TurnModel {
    let model = this.refined(this.straight([]));
    for (const candidate of candidates) model = this.withOneMore(model, candidate, model.turns.length);
    return model;
  }

  replaced = (model: TurnModel, w: number, candidate: Candidate): TurnModel =>
    this.withOneMore({ ...model, turns: model.turns.filter((_, i) => i !== w) }, candidate, w);

  shapesOf = ({ turns }: TurnModel): Shape[] => turns.map(({ candidate, hz, q }) => candidate.make(hz, 0, q));

  /** Root mean square of what is left, degrees. */
  leftDeg = ({ sum }: TurnModel): number => (Math.sqrt(sum / this.frequency.length) * 180) / Math.PI;

  errorsOf(model: TurnModel): ShapeErrors[] {
    const { fit } = this.fitted(model, 1);
    const spread = spreadOf(fit.residuals, fit.parameters.length);
    const error = (i: number) =>
      fit.atBound[i] || !fit.inverse ? null : Math.sqrt(spread * fit.inverse[i]![i]!);
    let i = 1;
    return model.turns.map(({ candidate }) => ({
      hz: error(i++),
      gainDb: null,
      q: candidate.q ? error(i++) : null,
    }));
  }

  private turned(turns: readonly Turn[]): Float64Array {
    const out = new Float64Array(this.frequency.length);
    for (const { candidate, hz, q } of turns)
      addShapePhase(candidate.make(hz, 0, q) as AllPassShape, this.frequency, this.rate, out);
    return out;
  }

  /** The delay and the polarity by a straight line through what the all-passes leave. */
  private straight(turns: Turn[]): TurnModel {
    const { frequency, unwrapped, weight } = this;
    const turned = this.turned(turns);
    let [w, x, y, xx, xy] = [0, 0, 0, 0, 0];
    for (let n = 0; n < frequency.length; n++) {
      const [p, f, v] = [weight[n]! ** 2, frequency[n]!, unwrapped[n]! - turned[n]!];
      w += p;
      x += p * f;
      y += p * v;
      xx += p * f * f;
      xy += p * f * v;
    }
    const slope = (w * xy - x * y) / (w * xx - x * x);
    const at0 = (y - slope * x) / w;
    const halfTurns = Math.round(at0 / Math.PI);
    const model = { turns, delayS: -slope / (2 * Math.PI), inverted: halfTurns % 2 !== 0, sum: NaN };
    return { ...model, sum: squares(this.residualsOf(model)) };
  }

  private residualsOf({ turns, delayS, inverted }: Omit<TurnModel, 'sum'>): Float64Array {
    const { frequency, unwrapped, weight } = this;
    return this.turned(turns).map((turned, n) => {
      const left = unwrapped[n]! - turned + 2 * Math.PI * frequency[n]! * delayS - (inverted ? Math.PI : 0);
      return weight[n]! * (left - 2 * Math.PI * Math.round(left / (2 * Math.PI)));
    });
  }

  private withOneMore(model: TurnModel, candidate: Candidate, place: number): TurnModel {
    const { frequency } = this;
    const [low, high] = [frequency[0]!, frequency.at(-1)!];
    const count = Math.ceil(STARTS_PER_OCTAVE * Math.log2(high / low));
    const starts: TurnModel[] = [];
    for (let k = 0; k <= count; k++)
      for (const q of candidate.q?.starts ?? [1]) {
        const hz = low * (high / low) ** (k / count);
        starts.push(this.straight(model.turns.toSpliced(place, 0, { candidate, hz, q })));
      }
    starts.sort((a, b) => a.sum - b.sum);
    return starts
      .slice(0, REFINED)
      .map((start) => this.refined(start))
      .reduce((a, b) => (b.sum < a.sum ? b : a));
  }

  private refined(model: TurnModel): TurnModel {
    const { fit, modelOf } = this.fitted(model, 40);
    return { ...modelOf(fit.parameters), sum: fit.sum };
  }

  private fitted(model: TurnModel, rounds: number) {
    const { frequency } = this;
    const [low, high] = [Math.log(frequency[0]! / 2), Math.log(2 * frequency.at(-1)!)];
    const start = [model.delayS / DELAY_UNIT_S];
    const [least, most] = [[-Infinity], [Infinity]];
    for (const { candidate, hz, q } of model.turns) {
      start.push(Math.log(hz));
      least.push(low);
      most.push(this.rate === null ? high : Math.min(high, Math.log(0.49 * this.rate)));
      if (!candidate.q) continue;
      start.push(Math.log(q));
      least.push(Math.log(candidate.q.least));
      most.push(Math.log(candidate.q.most));
    }
    const modelOf = (p: readonly number[]): TurnModel => {
      let i = 1;
      return {
        ...model,
        delayS: p[0]! * DELAY_UNIT_S,
        turns: model.turns.map(({ candidate }) => ({
          candidate,
          hz: Math.exp(p[i++]!),
          q: candidate.q ? Math.exp(p[i++]!) : 1,
        })),
      };
    };
    const residuals = (p: readonly number[]) => this.residualsOf(modelOf(p));
    const jacobian = centralDifferences(residuals, STEP);
    const fit = leastSquares({ start, least, most, rounds, residuals, jacobian });
    return { fit, modelOf };
  }
}

const squares = (r: Float64Array) => r.reduce((sum, v) => sum + v * v, 0);

function unwrap(phase: Float64Array): Float64Array {
  const out = Float64Array.from(phase);
  for (let n = 1; n < out.length; n++)
    out[n] = out[n]! - 2 * Math.PI * Math.round((out[n]! - out[n - 1]!) / (2 * Math.PI));
  return out;
}

/** What the shapes that are known leave of the phase of a curve, radians. */
export function phaseLeft({ re, im }: UsedPoints, by: { re: Float64Array; im: Float64Array }): Float64Array {
  return re.map((v, n) => Math.atan2(im[n]! * by.re[n]! - v * by.im[n]!, v * by.re[n]! + im[n]! * by.im[n]!));
}
