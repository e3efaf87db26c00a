import { addLevel, sectionBiquad, type Section } from '../path/index.js';
import { solveLinear } from '../signal/index.js';
import type { SectionLimits } from './sectionLimits.js';
import { lobes } from './lobes.js';
import type { Span } from './span.js';

/** Gain below this, dB, is no section worth having. */
const LEAST_GAIN_DB = 0.2;
/** Rounds of refining after each section that was added. */
export const ROUNDS_WHILE_GROWING = 6;
/** Of the sections that do least, so many are tried elsewhere, by turns. */
const WEAKEST = 6;
/** A section tried elsewhere goes where it helps most, or to the next best place, by turns. */
const TURNS = 3;
const SHELF_Q = Math.SQRT1_2;

/** Cosine of the angle of every frequency at a rate: all that a section's level needs. */
export const cosineOf = (frequency: Float64Array, rate: number): Float64Array =>
  frequency.map((f) => Math.cos((2 * Math.PI * f) / rate));

/**
 * What is cancelled between sections costs so much of the same error: they work against each other, which takes headroom and
 * which nobody would set. Square root of its share of the sum of squares.
 */
const AGAINST = 0.18;

/** How a fit is begun. */
export interface FitStart {
  /** a single section may go so far beyond the limits of boost and cut, where its neighbours take it back; dB */
  beyondDb: number;
  /** how much what lies outside the span counts, against 1 */
  outside: number;
}

/** Sections under way to a gain: grown where most is left, refined all together, and the weakest tried elsewhere. */
export class SectionSearch {
  private readonly cosine: Float64Array;
  private readonly weight: Float64Array;

  constructor(
    private readonly frequency: Float64Array,
    private readonly goal: Float64Array,
    private readonly span: Span,
    private readonly limits: SectionLimits,
    private readonly rate: number,
    private readonly start: FitStart,
    public sections: Section[] = [],
  ) {
    this.cosine = cosineOf(frequency, rate);
    this.weight = frequency.map((f) => (f >= span.from && f <= span.to ? 1 : start.outside));
  }

  private level(section: Section): Float64Array {
    const out = new Float64Array(this.frequency.length);
    addLevel(sectionBiquad(section, this.rate), this.cosine, out, 1);
    return out;
  }

  private left(sections: Section[]): Float64Array {
    const left = this.goal.slice();
    for (const s of sections) addLevel(sectionBiquad(s, this.rate), this.cosine, left, -1);
    return left.map((v, i) => v * this.weight[i]!);
  }

  /** What counts: what is left of the goal, and behind it what the sections cancel of each other. */
  private residual(levels: Float64Array[]): Float64Array {
    const n = this.goal.length;
    const out = new Float64Array(2 * n);
    for (let i = 0; i < n; i++) {
      let [sum, all] = [0, 0];
      for (const level of levels) {
        sum += level[i]!;
        all += Math.abs(level[i]!);
      }
      out[i] = (this.goal[i]! - sum) * this.weight[i]!;
      out[n + i] = AGAINST * (all - Math.abs(sum));
    }
    return out;
  }

  /** What sections cost in all. */
  private cost(sections: Section[]): number {
    return sumOfSquares(this.residual(sections.map((s) => this.level(s))));
  }

  private bounded(s: Section): Section {
    const { maxBoostDb, maxCutDb, leastQ, mostQ, leastSectionDb, mostSectionDb } = this.limits;
    const { beyondDb } = this.start;
    return {
      kind: s.kind,
      frequency: Math.min(this.span.to, Math.max(this.span.from, s.frequency), 0.45 * this.rate),
      gainDb: Math.min(
        maxBoostDb + beyondDb,
        mostSectionDb,
        Math.max(-maxCutDb - beyondDb, leastSectionDb, s.gainDb),
      ),
      q: s.kind === 'peak' ? Math.min(mostQ, Math.max(leastQ, s.q)) : SHELF_Q,
    };
  }

  /** Adds the section that takes most off what is left, of several tried; false when none is worth it. */
  grow(turn = 0): boolean {
    const left = this.left(this.sections);
    const levels = this.sections.map((s) => this.level(s));
    const cost = sumOfSquares(this.residual(levels));
    const tried = this.proposals(left)
      .map((section) => ({
        section,
        cost: sumOfSquares(this.residual([...levels, this.level(section)])),
      }))
      .sort((a, b) => a.cost - b.cost);
    // the best at each place, and of those the one whose turn it is
    const places = tried.filter(
      ({ section: { kind, frequency } }, i) =>
        !tried.slice(0, i).some((t) => t.section.kind === kind && t.section.frequency === frequency),
    );
    const best = places[turn % Math.min(TURNS, places.length)] ?? null;
    if (!best || Math.abs(best.section.gainDb) < LEAST_GAIN_DB || best.cost >= cost) return false;
    this.sections.push(best.section);
    return true;
  }

  /**
   * Takes out the section whose absence costs least (or one of the next few, by turns), grows another where most is left,
   * and keeps that when it is better. False when there is nothing to swap.
   */
  swapWeakest(turn: number): boolean {
    if (this.sections.length < 2) return false;
    const before = this.sections;
    const costBefore = this.cost(before);
    const without = this.withoutOne();
    this.sections = without[turn % Math.min(WEAKEST, without.length)]!;
    this.refine(ROUNDS_WHILE_GROWING);
    this.grow(Math.floor(turn / WEAKEST));
    this.refine(2 * ROUNDS_WHILE_GROWING);
    if (this.cost(this.sections) >= costBefore) this.sections = before;
    return true;
  }

  /** What is left of the sections without each of them in turn, the one that is missed least first. */
  private withoutOne(): Section[][] {
    return this.sections
      .map((_, i) => this.sections.filter((_, k) => k !== i))
      .map((rest) => ({ rest, cost: this.cost(rest) }))
      .sort((a, b) => a.cost - b.cost)
      .map(({ rest }) => rest);
  }

  /** Takes out the section that is missed least, and refines the others. */
  dropWeakest(): void {
    this.sections = this.withoutOne()[0] ?? [];
    this.refine(2 * ROUNDS_WHILE_GROWING);
  }

  private proposals(left: Float64Array): Section[] {
    const out: Section[] = [];
    const { kinds } = this.limits;
    const mean = (from: number, to: number) => {
      const part = [...left].filter((_, i) => this.frequency[i]! >= from && this.frequency[i]! <= to);
      return part.length > 0 ? part.reduce((a, b) => a + b) / part.length : 0;
    };
    const { from, to } = this.span;
    for (const octave of [1, 2, 3]) {
      if (kinds.includes('low shelf'))
        out.push({
          kind: 'low shelf',
          frequency: from * 2 ** octave,
          gainDb: mean(from, from * 2 ** octave),
          q: SHELF_Q,
        });
      if (kinds.includes('high shelf'))
        out.push({
          kind: 'high shelf',
          frequency: to / 2 ** octave,
          gainDb: mean(to / 2 ** octave, to),
          q: SHELF_Q,
        });
    }
    if (kinds.includes('peak')) {
      // lobes of what is left, by their area; widths from half to twice the lobe's own
      for (const { at, width, height } of lobes(this.frequency, left).slice(0, 12))
        for (const stretch of [0.6, 1, 1.6])
          out.push({
            kind: 'peak',
            frequency: at,
            gainDb: height,
            q: 1 / (2 * Math.sinh((Math.LN2 / 2) * width * stretch)),
          });
    }
    return out.map((s) => this.bounded(s));
  }

  /** Damped least squares over all parameters at once, until a round gains less than a share of what is left. */
  refine(rounds: number, leastGain = 1e-3): void {
    let damping = 1e-2;
    let levels = this.sections.map((s) => this.level(s));
    let residual = this.residual(levels);
    let cost = sumOfSquares(residual);
    for (let round = 0; round < rounds && damping < 1e6; round++) {
      const slopes = this.slopes(levels);
      const n = slopes.length;
      const normal = Array.from({ length: n }, () => new Float64Array(n));
      for (let a = 0; a < n; a++)
        for (let b = a; b < n; b++) normal[a]![b] = normal[b]![a] = dot(slopes[a]!, slopes[b]!);
      for (let a = 0; a < n; a++) normal[a]![a] = normal[a]![a]! * (1 + damping) + 1e-9;
      const step = solveLinear(
        normal,
        Float64Array.from(slopes, (slope) => dot(slope, residual)),
      );
      const next = this.sections.map((s, i) =>
        this.bounded({
          kind: s.kind,
          frequency: s.frequency * Math.exp(Math.max(-0.3, Math.min(0.3, step[3 * i]!))),
          gainDb: s.gainDb + step[3 * i + 1]!,
          q: s.q * Math.exp(Math.max(-0.5, Math.min(0.5, step[3 * i + 2]!))),
        }),
      );
      const nextLevels = next.map((s) => this.level(s));
      const nextResidual = this.residual(nextLevels);
      const nextCost = sumOfSquares(nextResidual);
      if (nextCost < cost) {
        const gained = (cost - nextCost) / cost;
        [this.sections, levels, residual, cost] = [next, nextLevels, nextResidual, nextCost];
        damping = Math.max(1e-6, damping / 4);
        if (gained < leastGain) break;
      } else damping *= 6;
    }
  }

  /** By how much each parameter lowers the residual: log frequency, gain and log Q of every section. */
  private slopes(levels: Float64Array[]): Float64Array[] {
    const n = this.goal.length;
    const sum = new Float64Array(n);
    for (const level of levels) for (let i = 0; i < n; i++) sum[i] = sum[i]! + level[i]!;
    return this.sections.flatMap((s, k) => {
      const here = levels[k]!;
      const by = (moved: Section, step: number) => {
        const there = this.level(moved);
        const out = new Float64Array(2 * n);
        for (let i = 0; i < n; i++) {
          const slope = (there[i]! - here[i]!) / step;
          out[i] = slope * this.weight[i]!;
          out[n + i] = -AGAINST * slope * (Math.sign(here[i]!) - Math.sign(sum[i]!));
        }
        return out;
      };
      const h = 1e-4;
      return [
        by({ ...s, frequency: s.frequency * Math.exp(h) }, h),
        by({ ...s, gainDb: s.gainDb + h }, h),
        s.kind === 'peak' ? by({ ...s, q: s.q * Math.exp(h) }, h) : new Float64Array(2 * n),
      ];
    });
  }
}

const dot = (a: Float64Array, b: Float64Array): number => {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
};
const sumOfSquares = (a: Float64Array) => dot(a, a);
