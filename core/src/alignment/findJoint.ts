import { needWithin } from '../limits/index.js';
import { smoothedPower } from './pairReading.js';
import { SHARED_DB } from './summation.js';
import type { ComplexTrace } from '../signal/index.js';

/** Several sources at one spot or seat, the first of which stands still. */
export interface JointPoint {
  /** two or more, on the same frequencies at every point */
  sources: readonly ComplexTrace[];
  weight: number;
}

/** Delay and polarity of every source beside the first, in their order. */
export interface JointSetting {
  delayS: number;
  inverted: boolean;
}

export interface JointAlignment {
  settings: JointSetting[];
  /** |sum| over the sum of magnitudes where two or more of them are within 10 dB of the loudest, mean over the points, 0 to 1 */
  efficiency: number;
}

/** Where the second loudest lies so far below its own loudest, nothing is judged, dB. */
const HEARD_DB = 20;
const STEPS_PER_PERIOD = 8;
const MOST_PASSES = 12;
const LEAST_GAIN = 1e-6;
const FINEST_S = 1e-6;

/** What counts of one point: the sources where two of them meet. */
interface Terms {
  /** Hz */
  f: Float64Array;
  /** of each frequency: how much it counts over the sum of magnitudes */
  share: Float64Array;
  re: Float64Array[];
  im: Float64Array[];
  weight: number;
}

/**
 * Delay and polarity of several sources at once. Each order in which they can join the first one is a beginning, each joining where it adds
 * up best; then each in turn is tried over all delays while the others stand, until none gains.
 * @param mostDelayS delays are searched as far to either side, seconds
 * @returns null where nowhere two of them meet
 * @throws RangeError for no point, fewer than two sources, or a range that is not above 0
 */
export function findJoint(points: readonly JointPoint[], mostDelayS: number): JointAlignment | null {
  needWithin('findJoint', 'largest delay in s', mostDelayS, 1e-5, 10);
  const count = points[0]?.sources.length ?? 0;
  if (count < 2 || points.some((p) => p.sources.length !== count))
    throw new RangeError('findJoint: every point needs the same two sources or more');
  const terms = points.map(termsOf).filter((t): t is Terms => t !== null && t.weight > 0);
  if (terms.length === 0) return null;
  const highest = Math.max(...terms.map((t) => t.f.at(-1)!));
  const step = 1 / (STEPS_PER_PERIOD * highest);
  const grid = Array.from({ length: 2 * Math.ceil(mostDelayS / step) + 1 }, (_, i) =>
    Math.max(-mostDelayS, Math.min(mostDelayS, (i - Math.ceil(mostDelayS / step)) * step)),
  );
  let best: JointAlignment | null = null;
  for (const order of orders(count - 1)) {
    const found = fromOrder(terms, order, grid, step, mostDelayS);
    if (!best || found.efficiency > best.efficiency) best = found;
  }
  return best;
}

/** Efficiency of several sources as they are set. @returns null where nowhere two of them meet */
export function jointEfficiency(
  points: readonly JointPoint[],
  settings: readonly JointSetting[],
): number | null {
  const terms = points.map(termsOf).filter((t): t is Terms => t !== null && t.weight > 0);
  if (terms.length === 0) return null;
  const all = [0, ...settings.map((_, i) => i + 1)];
  return new Sums(terms, all, settings).efficiency();
}

function termsOf({ sources, weight }: JointPoint): Terms | null {
  const power = sources.map(smoothedPower);
  const loudest = power.map((p) => p.reduce((most, v) => (v > most ? v : most), 0)).sort((a, b) => b - a);
  const least = loudest[1]! * 10 ** (-HEARD_DB / 10);
  const at: number[] = [];
  const share: number[] = [];
  let total = 0;
  for (let n = 0; n < power[0]!.length; n++) {
    const [first, second] = power.map((p) => p[n]!).sort((a, b) => b - a) as [number, number];
    const apart = 10 * Math.log10(first / second);
    const magnitudes = sources.reduce((sum, s) => sum + Math.hypot(s.re[n]!, s.im[n]!), 0);
    if (!(apart < SHARED_DB) || first < least || !(magnitudes > 0)) continue;
    at.push(n);
    share.push((1 - apart / SHARED_DB) / magnitudes);
    total += 1 - apart / SHARED_DB;
  }
  if (total === 0) return null;
  const taken = (of: Float64Array) => Float64Array.from(at, (n) => of[n]!);
  return {
    f: taken(sources[0]!.frequency),
    share: Float64Array.from(share, (s) => s / total),
    re: sources.map((s) => taken(s.re)),
    im: sources.map((s) => taken(s.im)),
    weight,
  };
}

/** The sum of some sources as they are set, and what one more would make of it. */
class Sums {
  private readonly re: Float64Array[];
  private readonly im: Float64Array[];

  /** @param of which sources are in it: 0 for the one that stands still, i for the one that `settings[i - 1]` is of */
  constructor(
    private readonly terms: readonly Terms[],
    of: readonly number[],
    settings: readonly JointSetting[],
  ) {
    this.re = terms.map((t) => new Float64Array(t.f.length));
    this.im = terms.map((t) => new Float64Array(t.f.length));
    for (const i of of) {
      const { delayS, inverted } = i === 0 ? { delayS: 0, inverted: false } : settings[i - 1]!;
      terms.forEach((t, p) => {
        const [re, im] = [this.re[p]!, this.im[p]!];
        for (let k = 0; k < t.f.length; k++) {
          const turn = -2 * Math.PI * t.f[k]! * delayS + (inverted ? Math.PI : 0);
          const [c, s] = [Math.cos(turn), Math.sin(turn)];
          re[k] = re[k]! + c * t.re[i]![k]! - s * t.im[i]![k]!;
          im[k] = im[k]! + c * t.im[i]![k]! + s * t.re[i]![k]!;
        }
      });
    }
  }

  efficiency(): number {
    return this.mean((t, p) => {
      let sum = 0;
      for (let k = 0; k < t.f.length; k++) sum += t.share[k]! * Math.hypot(this.re[p]![k]!, this.im[p]![k]!);
      return sum;
    });
  }

  /** The same with one more source: the right way round, and inverted. */
  withOne(i: number, delayS: number): [number, number] {
    let [plain, inverted, weights] = [0, 0, 0];
    this.terms.forEach((t, p) => {
      const [re, im, a, b] = [this.re[p]!, this.im[p]!, t.re[i]!, t.im[i]!];
      let [x, y] = [0, 0];
      for (let k = 0; k < t.f.length; k++) {
        const turn = -2 * Math.PI * t.f[k]! * delayS;
        const [c, s] = [Math.cos(turn), Math.sin(turn)];
        const [u, v] = [c * a[k]! - s * b[k]!, c * b[k]! + s * a[k]!];
        x += t.share[k]! * Math.sqrt((re[k]! + u) ** 2 + (im[k]! + v) ** 2);
        y += t.share[k]! * Math.sqrt((re[k]! - u) ** 2 + (im[k]! - v) ** 2);
      }
      plain += t.weight * x;
      inverted += t.weight * y;
      weights += t.weight;
    });
    return [plain / weights, inverted / weights];
  }

  private mean(of: (t: Terms, p: number) => number): number {
    let [sum, weights] = [0, 0];
    this.terms.forEach((t, p) => {
      sum += t.weight * of(t, p);
      weights += t.weight;
    });
    return sum / weights;
  }
}

function fromOrder(
  terms: readonly Terms[],
  order: readonly number[],
  grid: readonly number[],
  step: number,
  mostDelayS: number,
): JointAlignment {
  const settings: JointSetting[] = order.map(() => ({ delayS: 0, inverted: false }));
  const joined = [0];
  for (const i of order) {
    settings[i - 1] = bestOf(new Sums(terms, joined, settings), i, grid, step, mostDelayS).setting;
    joined.push(i);
  }
  let efficiency = new Sums(terms, joined, settings).efficiency();
  for (let pass = 0; pass < MOST_PASSES; pass++) {
    const before = efficiency;
    for (const i of order) {
      const others = joined.filter((j) => j !== i);
      const tried = bestOf(new Sums(terms, others, settings), i, grid, step, mostDelayS);
      if (tried.efficiency <= efficiency + LEAST_GAIN) continue;
      settings[i - 1] = tried.setting;
      ({ efficiency } = tried);
    }
    if (efficiency - before < LEAST_GAIN) break;
  }
  return { settings, efficiency };
}

/** The best delay and polarity of one source beside others that stand: over all of the grid, then between its steps. */
function bestOf(
  others: Sums,
  i: number,
  grid: readonly number[],
  step: number,
  mostDelayS: number,
): { setting: JointSetting; efficiency: number } {
  let best = { setting: { delayS: 0, inverted: false }, efficiency: -1 };
  const tryAt = (delayS: number) =>
    others.withOne(i, delayS).forEach((efficiency, flip) => {
      if (efficiency > best.efficiency) best = { setting: { delayS, inverted: flip === 1 }, efficiency };
    });
  grid.forEach(tryAt);
  for (let fine = step / 2; fine > FINEST_S; fine /= 2)
    for (const by of [-fine, fine])
      tryAt(Math.max(-mostDelayS, Math.min(mostDelayS, best.setting.delayS + by)));
  return best;
}

/** Every order of 1 to n. */
function orders(n: number): number[][] {
  if (n === 0) return [[]];
  return orders(n - 1).flatMap((order) =>
    Array.from({ length: n }, (_, at) => [...order.slice(0, at), n, ...order.slice(at)]),
  );
}
