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
/** While it is still open which beginning is best, less than a thousandth of a dB is nothing gained. */
const ROUGH_GAIN = 1e-4;
const FINEST_S = 1e-6;
/** Delays are sought with so many frequencies of each point, and settled with all of them. */
const MOST_SEARCHED = 64;
/** So many of the best beginnings are settled. */
const BEST_POLISHED = 2;

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
  const rough = terms.map(thinned);
  const begun = orders(count - 1)
    .map((order) => ({ order, ...fromOrder(rough, order, step, mostDelayS) }))
    .sort((a, b) => b.efficiency - a.efficiency);
  const polished = begun
    .slice(0, BEST_POLISHED)
    .map(({ order, settings }) =>
      settled(terms, order, settings, (others, i, now) => near(others, i, now, step, mostDelayS)),
    );
  return polished.reduce((best, found) => (found.efficiency > best.efficiency ? found : best));
}

/** As many frequencies as tell where the best delays lie. */
function thinned(t: Terms): Terms {
  const every = Math.ceil(t.f.length / MOST_SEARCHED);
  if (every === 1) return t;
  const part = (of: Float64Array) => of.filter((_, k) => k % every === 0);
  const share = part(t.share);
  const [re, im] = [t.re.map(part), t.im.map(part)];
  // in phase they make 1
  const full = share.reduce(
    (sum, v, k) => sum + v * re.reduce((m, of, i) => m + Math.hypot(of[k]!, im[i]![k]!), 0),
    0,
  );
  return {
    f: part(t.f),
    share: share.map((v) => v / full),
    re,
    im,
    weight: t.weight,
  };
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

  /**
   * The same over delays that are equally far apart: each source is turned on from one to the next.
   * @param visit is given each delay's number, and what it makes of the sum: the right way round, and inverted
   */
  withOneOver(
    i: number,
    { from, step, count }: { from: number; step: number; count: number },
    visit: (n: number, plain: number, inverted: number) => void,
  ): void {
    const turned = this.terms.map((t) => {
      const { length } = t.f;
      const out = {
        u: new Float64Array(length),
        v: new Float64Array(length),
        c: new Float64Array(length),
        s: new Float64Array(length),
      };
      for (let k = 0; k < length; k++) {
        const turn = -2 * Math.PI * t.f[k]!;
        const [c, s] = [Math.cos(turn * from), Math.sin(turn * from)];
        out.u[k] = c * t.re[i]![k]! - s * t.im[i]![k]!;
        out.v[k] = c * t.im[i]![k]! + s * t.re[i]![k]!;
        out.c[k] = Math.cos(turn * step);
        out.s[k] = Math.sin(turn * step);
      }
      return out;
    });
    const weights = this.terms.reduce((sum, t) => sum + t.weight, 0);
    for (let n = 0; n < count; n++) {
      let [plain, inverted] = [0, 0];
      this.terms.forEach((t, p) => {
        const [re, im, { u, v, c, s }] = [this.re[p]!, this.im[p]!, turned[p]!];
        let [x, y] = [0, 0];
        for (let k = 0; k < u.length; k++) {
          const [a, b] = [u[k]!, v[k]!];
          const [p0, p1, q0, q1] = [re[k]! + a, im[k]! + b, re[k]! - a, im[k]! - b];
          x += t.share[k]! * Math.sqrt(p0 * p0 + p1 * p1);
          y += t.share[k]! * Math.sqrt(q0 * q0 + q1 * q1);
          u[k] = c[k]! * a - s[k]! * b;
          v[k] = c[k]! * b + s[k]! * a;
        }
        plain += t.weight * x;
        inverted += t.weight * y;
      });
      visit(n, plain / weights, inverted / weights);
    }
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

/** What a source does best beside others that stand. */
type Best = (others: Sums, i: number, now: JointSetting) => Tried;
interface Tried {
  setting: JointSetting;
  efficiency: number;
}

/** Each joins where it adds up best, in an order; then each in turn is tried again. */
function fromOrder(
  terms: readonly Terms[],
  order: readonly number[],
  step: number,
  mostDelayS: number,
): JointAlignment {
  const settings: JointSetting[] = order.map(() => ({ delayS: 0, inverted: false }));
  const joined = [0];
  const anywhere: Best = (others, i) => overAll(others, i, step, mostDelayS);
  for (const i of order) {
    settings[i - 1] = anywhere(new Sums(terms, joined, settings), i, settings[i - 1]!).setting;
    joined.push(i);
  }
  return settled(terms, order, settings, anywhere, ROUGH_GAIN);
}

/** Each in turn is tried while the others stand, until none gains. */
function settled(
  terms: readonly Terms[],
  order: readonly number[],
  from: readonly JointSetting[],
  best: Best,
  leastGain = LEAST_GAIN,
): JointAlignment {
  const settings = [...from];
  const all = [0, ...settings.map((_, i) => i + 1)];
  let efficiency = new Sums(terms, all, settings).efficiency();
  // so many in a row gained nothing: those after the last that did, and that one itself, stand at their best
  let unchanged = 0;
  for (let tries = 0; tries < MOST_PASSES * order.length && unchanged < order.length; tries++) {
    const i = order[tries % order.length]!;
    const others = all.filter((j) => j !== i);
    const tried = best(new Sums(terms, others, settings), i, settings[i - 1]!);
    const gains = tried.efficiency > efficiency + leastGain;
    unchanged = gains ? 1 : unchanged + 1;
    if (!gains) continue;
    settings[i - 1] = tried.setting;
    ({ efficiency } = tried);
  }
  return { settings, efficiency };
}

/** The best delay and polarity of one source beside others that stand: over all delays, then between their steps. */
function overAll(others: Sums, i: number, step: number, mostDelayS: number): Tried {
  const each = Math.floor(mostDelayS / step);
  let best: Tried = { setting: { delayS: 0, inverted: false }, efficiency: -1 };
  others.withOneOver(i, { from: -each * step, step, count: 2 * each + 1 }, (n, plain, inverted) => {
    const efficiency = Math.max(plain, inverted);
    if (efficiency > best.efficiency)
      best = { setting: { delayS: (n - each) * step, inverted: inverted > plain }, efficiency };
  });
  return refined(others, i, best, step, mostDelayS, [-mostDelayS, mostDelayS]);
}

/** The same about where it is: a period and a half of the highest frequency to either side. */
function near(others: Sums, i: number, now: JointSetting, step: number, mostDelayS: number): Tried {
  const about = Array.from({ length: 25 }, (_, n) => now.delayS + (n - 12) * step);
  return refined(others, i, { setting: now, efficiency: -1 }, step, mostDelayS, about);
}

/** The best of what is given and of some delays, then between them. */
function refined(
  others: Sums,
  i: number,
  from: Tried,
  step: number,
  mostDelayS: number,
  delays: readonly number[],
): Tried {
  let best = from;
  const tryAt = (delayS: number) => {
    const within = Math.max(-mostDelayS, Math.min(mostDelayS, delayS));
    others.withOne(i, within).forEach((efficiency, flip) => {
      if (efficiency > best.efficiency)
        best = { setting: { delayS: within, inverted: flip === 1 }, efficiency };
    });
  };
  delays.forEach(tryAt);
  for (let fine = step / 2; fine > FINEST_S; fine /= 2)
    for (const by of [-fine, fine]) tryAt(best.setting.delayS + by);
  return best;
}

/** Every order of 1 to n. */
function orders(n: number): number[][] {
  if (n === 0) return [[]];
  return orders(n - 1).flatMap((order) =>
    Array.from({ length: n }, (_, at) => [...order.slice(0, at), n, ...order.slice(at)]),
  );
}
