import type { ComplexTrace } from '../signal/index.js';
import { readPair } from './pairReading.js';

/** Two sources at one spot or seat. */
export interface AlignPoint {
  /** the one that stands still: the time reference */
  reference: ComplexTrace;
  /** the one that is brought to it */
  moved: ComplexTrace;
  weight: number;
}

/** What two sources do at a point: how well they add up at each frequency as the second one is turned. */
interface PointTerms {
  /** index of the frequency, of each that counts */
  at: Int32Array;
  /** |a|^2 + |b|^2, 2 |a| |b|, and 1 / (|a| + |b|), of each */
  squares: Float64Array;
  cross: Float64Array;
  scale: Float64Array;
  /** phase of b against a, radians */
  phase: Float64Array;
  weight: Float64Array;
  weights: number;
}

/** So finely a turn is tabulated: a power of two, so that whole turns fall off by themselves. */
const STEPS = 256;

const COSINES = Float64Array.from({ length: STEPS }, (_, n) => Math.cos((2 * Math.PI * n) / STEPS));
const SINES = Float64Array.from({ length: STEPS }, (_, n) => Math.sin((2 * Math.PI * n) / STEPS));

/** Turns in steps of the table. @param radians in place of nothing: a new array */
export function inSteps(radians: Float64Array): Int32Array {
  const out = new Int32Array(radians.length);
  for (let i = 0; i < out.length; i++) out[i] = Math.round((radians[i]! * STEPS) / (2 * Math.PI));
  return out;
}

/** What delays turn, in steps of the table: every frequency of the first delay, then of the next. */
export function delayTurns(frequency: Float64Array, delays: Float64Array): Int32Array {
  const turns = new Int32Array(frequency.length * delays.length);
  let i = 0;
  for (const delay of delays) for (const f of frequency) turns[i++] = Math.round(-f * delay * STEPS);
  return turns;
}

/**
 * Sum efficiency of two sources over points, by what is done to the second one's phase. What a turn by some angle does at a frequency
 * is tabulated over all points at once, so that trying one thing costs as much for one seat as for a hundred.
 */
export class PhaseTables {
  /** frequencies that count anywhere, Hz */
  readonly frequency: Float64Array;
  /** the shared band over all points, Hz; null where there is none */
  readonly band: { from: number; to: number } | null;
  private readonly terms: (PointTerms | null)[];
  /** made when something is first told quickly: what is read exactly needs none */
  private table: Float64Array | null = null;
  private readonly total: number;
  private readonly pointWeights: number[];

  constructor(points: readonly AlignPoint[]) {
    const readings = points.map((p) => readPair(p.reference, p.moved));
    this.pointWeights = points.map((p, i) => ('band' in readings[i]! ? p.weight : 0));
    const total = this.pointWeights.reduce((a, b) => a + b, 0);
    const all = points[0]?.reference.frequency ?? new Float64Array(0);
    const counts = [...all.keys()].filter((n) => readings.some((r) => 'weight' in r && r.weight[n]! > 0));
    const index = new Map(counts.map((n, k) => [n, k]));
    this.frequency = Float64Array.from(counts, (n) => all[n]!);
    this.band =
      counts.length === 0 || total === 0
        ? null
        : { from: this.frequency[0]!, to: this.frequency[counts.length - 1]! };
    this.terms = points.map(({ reference: a, moved: b }, i) => {
      const reading = readings[i]!;
      if (!('weight' in reading)) return null;
      const used = counts.filter((n) => reading.weight[n]! > 0);
      const of = (value: (n: number) => number) => Float64Array.from(used, value);
      const x = (n: number) => Math.hypot(a.re[n]!, a.im[n]!);
      const y = (n: number) => Math.hypot(b.re[n]!, b.im[n]!);
      const weight = of((n) => reading.weight[n]!);
      return {
        at: Int32Array.from(used, (n) => index.get(n)!),
        squares: of((n) => x(n) ** 2 + y(n) ** 2),
        cross: of((n) => 2 * x(n) * y(n)),
        scale: of((n) => 1 / (x(n) + y(n))),
        phase: of((n) => (reading.phaseDeg[n]! * Math.PI) / 180),
        weight,
        weights: weight.reduce((s, w) => s + w, 0),
      };
    });
    this.total = total;
  }

  private tabulated(): Float64Array {
    const { total } = this;
    const table = new Float64Array(this.frequency.length * STEPS);
    this.terms.forEach((t, i) => {
      if (!t) return;
      const by = this.pointWeights[i]! / total / t.weights;
      t.at.forEach((k, j) => {
        const [c, s] = [t.cross[j]! * Math.cos(t.phase[j]!), t.cross[j]! * Math.sin(t.phase[j]!)];
        const [squares, share, from] = [t.squares[j]!, by * t.weight[j]! * t.scale[j]!, k * STEPS];
        for (let n = 0; n < STEPS; n++) {
          const sum = Math.sqrt(Math.max(0, squares + c * COSINES[n]! - s * SINES[n]!));
          table[from + n] = table[from + n]! + share * sum;
        }
      });
    });
    return table;
  }

  /**
   * Mean efficiency over the points for every one of some turns together with another one, to some parts in a thousand: the best of many
   * can be told from the others, no more.
   * @param turns as `inSteps` gives them, one after the other @param own likewise, one
   * @param out as many as `turns`
   */
  quick(turns: Int32Array, own: Int32Array, out: Float64Array): void {
    const table = (this.table ??= this.tabulated());
    const count = own.length;
    for (let d = 0; d < out.length; d++) {
      let sum = 0;
      const from = d * count;
      for (let k = 0; k < count; k++) sum += table[k * STEPS + ((turns[from + k]! + own[k]!) & (STEPS - 1))]!;
      out[d] = sum;
    }
  }

  /** Mean efficiency over the points, between what is tabulated: to a part in ten thousand. @param turn at each frequency, radians */
  near(turn: Float64Array): number {
    const table = (this.table ??= this.tabulated());
    let sum = 0;
    for (let k = 0; k < turn.length; k++) {
      const x = turn[k]! * (STEPS / (2 * Math.PI));
      const whole = Math.floor(x);
      const low = table[k * STEPS + (whole & (STEPS - 1))]!;
      sum += low + (x - whole) * (table[k * STEPS + ((whole + 1) & (STEPS - 1))]! - low);
    }
    return sum;
  }

  /** Efficiency at each point, exactly; NaN where the two share nothing. @param turn of the second one at each frequency, radians */
  atPoints(turn: Float64Array): Float64Array {
    return Float64Array.from(this.terms, (t) => {
      if (!t) return NaN;
      let sum = 0;
      for (let j = 0; j < t.at.length; j++) {
        const angle = t.phase[j]! + turn[t.at[j]!]!;
        sum +=
          t.weight[j]! * t.scale[j]! * Math.sqrt(Math.max(0, t.squares[j]! + t.cross[j]! * Math.cos(angle)));
      }
      return sum / t.weights;
    });
  }

  /** The worst of the points that count for anything. */
  worst(efficiency: Float64Array): number {
    return Math.min(...efficiency.filter((e, i) => !Number.isNaN(e) && this.pointWeights[i]! > 0));
  }

  /** Mean over the points by their weights, of those where the two share something. */
  mean(efficiency: Float64Array): number {
    let [sum, weights] = [0, 0];
    efficiency.forEach((e, i) => {
      if (Number.isNaN(e)) return;
      sum += this.pointWeights[i]! * e;
      weights += this.pointWeights[i]!;
    });
    return sum / weights;
  }
}
