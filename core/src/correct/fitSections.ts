import { addLevel, sectionBiquad, sectionsLevelDb, type Section, type SectionKind } from '../path/index.js';
import type { Span } from './span.js';

/** What may be used. */
export interface SectionLimits {
  /** 1 to 24 */
  count: number;
  kinds: SectionKind[];
  leastQ: number;
  mostQ: number;
  maxBoostDb: number;
  maxCutDb: number;
  /** smallest steps that the processor takes */
  gainStepDb: number;
  frequencyStepHz: number;
  /** gain of a single section */
  leastSectionDb: number;
  mostSectionDb: number;
}

export interface SectionFit {
  sections: Section[];
  /** RMS of what is left over the span, dB */
  errorDb: number;
}

/** Gain below this, dB, is no section worth having. */
const LEAST_GAIN_DB = 0.2;
const ROUNDS_WHILE_GROWING = 6;
const ROUNDS_AT_THE_END = 60;
/** So often a section that does little is tried elsewhere. */
const SWAPS = 24;
/** Of the sections that do least, so many are tried elsewhere, by turns. */
const WEAKEST = 6;
/**
 * Begun in several ways, since a fit ends in the nearest hollow, not in the deepest; the later ways only where the one
 * before left much. A single section may go beyond the limits, where its neighbours take it back; what lies outside the
 * span counts less, but a section must not leave its span.
 */
const WAYS: Way[] = [
  { beyondDb: 3, outside: 0.15 },
  { beyondDb: 6, outside: 0.05 },
  { beyondDb: 9, outside: 0.15 },
];
const MUCH_DB = 0.9;
interface Way {
  /** dB */
  beyondDb: number;
  outside: number;
}
/** A section tried elsewhere goes where it helps most, or to the next best place, by turns. */
const TURNS = 3;
/** The search looks at every so many points of the grid; only the end looks at all. */
const COARSE = 3;
const SHELF_Q = Math.SQRT1_2;

/**
 * Parametric sections whose sum follows a gain: one after the other where most is left, all of them refined together after
 * each by damped least squares (Levenberg 1944, Marquardt 1963) over log frequency, gain and log Q, then rounded to the
 * processor's steps.
 * @param frequency log grid, Hz
 * @param gainDb what shall be reached, dB; 0 outside the span
 * @throws RangeError for a count outside 1 to 24 or limits that leave nothing
 */
export function fitSections(
  frequency: Float64Array,
  gainDb: Float64Array,
  span: Span,
  limits: SectionLimits,
  rate: number,
): SectionFit {
  const { count, kinds, leastQ, mostQ } = limits;
  if (!(Number.isInteger(count) && count >= 1 && count <= 24))
    throw new RangeError(`fitSections: count must be 1 to 24, got ${count}`);
  if (kinds.length === 0 || !(leastQ > 0 && mostQ >= leastQ))
    throw new RangeError('fitSections: kinds and Q limits leave nothing to use');
  let best: SectionFit | null = null;
  for (const way of WAYS) {
    if (best && best.errorDb <= MUCH_DB) break;
    const found = fitInOneWay(frequency, gainDb, span, limits, rate, way);
    if (!best || found.errorDb < best.errorDb) best = found;
  }
  return best!;
}

/** Grown, refined and swapped on a thinned grid, then refined on all of it and rounded. */
function fitInOneWay(
  frequency: Float64Array,
  gainDb: Float64Array,
  span: Span,
  limits: SectionLimits,
  rate: number,
  way: Way,
): SectionFit {
  const { count } = limits;
  const thinned = (values: Float64Array) => values.filter((_, i) => i % COARSE === 0);
  const fit = new Fit(thinned(frequency), thinned(gainDb), span, limits, rate, way);
  while (fit.sections.length < count) {
    if (!fit.grow()) break;
    fit.refine(ROUNDS_WHILE_GROWING);
  }
  fit.refine(ROUNDS_WHILE_GROWING);
  for (let swap = 0; swap < SWAPS && fit.swapWeakest(swap); swap++);
  const last = new Fit(frequency, gainDb, span, limits, rate, way, fit.sections);
  last.refine(ROUNDS_AT_THE_END, 1e-5);
  const sections = heldBelow(
    last.sections.map((s) => rounded(s, limits)),
    frequency,
    limits,
    rate,
  )
    .filter((s) => s.gainDb !== 0)
    .sort((a, b) => a.frequency - b.frequency);
  return { sections, errorDb: sectionsErrorDb(frequency, gainDb, span, sections, rate) };
}

/** RMS over the span of what sections leave of a gain, dB. */
export function sectionsErrorDb(
  frequency: Float64Array,
  gainDb: Float64Array,
  { from, to }: Span,
  sections: Section[],
  rate: number,
): number {
  const left = gainDb.slice();
  const cosine = cosineOf(frequency, rate);
  for (const s of sections) addLevel(sectionBiquad(s, rate), cosine, left, -1);
  const inside = [...left].filter((_, i) => frequency[i]! >= from && frequency[i]! <= to);
  return Math.sqrt(inside.reduce((sum, v) => sum + v * v, 0) / inside.length);
}

/** Sections lowered step by step where their sum would go above the boost limit: a limit is a limit. */
function heldBelow(
  sections: Section[],
  frequency: Float64Array,
  { maxBoostDb, gainStepDb }: SectionLimits,
  rate: number,
): Section[] {
  let held = sections;
  for (let step = 0; step < 1000; step++) {
    const sum = sectionsLevelDb(held, rate, frequency);
    let top = 0;
    sum.forEach((v, i) => (top = v > sum[top]! ? i : top));
    if (!(sum[top]! > maxBoostDb)) break;
    // the section that lifts most there gives way
    const lift = held.map((s) => sectionsLevelDb([s], rate, Float64Array.of(frequency[top]!))[0]!);
    const most = lift.indexOf(Math.max(...lift));
    held = held.map((s, i) =>
      i === most ? { ...s, gainDb: Number((s.gainDb - gainStepDb).toFixed(6)) } : s,
    );
  }
  return held;
}

function rounded(s: Section, { gainStepDb, frequencyStepHz, leastQ, mostQ }: SectionLimits): Section {
  const step = (v: number, by: number) => Number((Math.round(v / by) * by).toFixed(6));
  return {
    kind: s.kind,
    frequency: Math.max(frequencyStepHz, step(s.frequency, frequencyStepHz)),
    gainDb: step(s.gainDb, gainStepDb),
    q: Math.min(mostQ, Math.max(leastQ, step(s.q, 0.01))),
  };
}

const cosineOf = (frequency: Float64Array, rate: number) =>
  frequency.map((f) => Math.cos((2 * Math.PI * f) / rate));

class Fit {
  private readonly cosine: Float64Array;
  private readonly weight: Float64Array;

  constructor(
    private readonly frequency: Float64Array,
    private readonly goal: Float64Array,
    private readonly span: Span,
    private readonly limits: SectionLimits,
    private readonly rate: number,
    private readonly way: Way,
    public sections: Section[] = [],
  ) {
    this.cosine = cosineOf(frequency, rate);
    this.weight = frequency.map((f) => (f >= span.from && f <= span.to ? 1 : way.outside));
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

  private bounded(s: Section): Section {
    const { maxBoostDb, maxCutDb, leastQ, mostQ, leastSectionDb, mostSectionDb } = this.limits;
    const { beyondDb } = this.way;
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
    const cost = sumOfSquares(left);
    const tried = this.proposals(left)
      .map((section) => {
        const level = this.level(section);
        return {
          section,
          cost: left.reduce((sum, v, i) => sum + (v - level[i]! * this.weight[i]!) ** 2, 0),
        };
      })
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
    const costBefore = sumOfSquares(this.left(before));
    const without = before
      .map((_, i) => before.filter((_, k) => k !== i))
      .map((rest) => ({ rest, cost: sumOfSquares(this.left(rest)) }))
      .sort((a, b) => a.cost - b.cost);
    this.sections = without[turn % Math.min(WEAKEST, without.length)]!.rest;
    this.refine(ROUNDS_WHILE_GROWING);
    this.grow(Math.floor(turn / WEAKEST));
    this.refine(2 * ROUNDS_WHILE_GROWING);
    if (sumOfSquares(this.left(this.sections)) >= costBefore) this.sections = before;
    return true;
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
    let left = this.left(this.sections);
    let cost = sumOfSquares(left);
    for (let round = 0; round < rounds && damping < 1e6; round++) {
      const slopes = this.sections.flatMap((s) => this.slopes(s));
      const n = slopes.length;
      const matrix = Array.from({ length: n }, () => new Float64Array(n + 1));
      for (let a = 0; a < n; a++) {
        for (let b = a; b < n; b++) matrix[a]![b] = matrix[b]![a] = dot(slopes[a]!, slopes[b]!);
        matrix[a]![n] = dot(slopes[a]!, left);
      }
      for (let a = 0; a < n; a++) matrix[a]![a] = matrix[a]![a]! * (1 + damping) + 1e-9;
      const step = solve(matrix);
      const next = this.sections.map((s, i) =>
        this.bounded({
          kind: s.kind,
          frequency: s.frequency * Math.exp(Math.max(-0.3, Math.min(0.3, step[3 * i]!))),
          gainDb: s.gainDb + step[3 * i + 1]!,
          q: s.q * Math.exp(Math.max(-0.5, Math.min(0.5, step[3 * i + 2]!))),
        }),
      );
      const nextLeft = this.left(next);
      const nextCost = sumOfSquares(nextLeft);
      if (nextCost < cost) {
        const gained = (cost - nextCost) / cost;
        [this.sections, left, cost] = [next, nextLeft, nextCost];
        damping = Math.max(1e-6, damping / 4);
        if (gained < leastGain) break;
      } else damping *= 6;
    }
  }

  /** Derivatives of a section's level by log frequency, gain and log Q. */
  private slopes(s: Section): Float64Array[] {
    const here = this.level(s);
    const by = (moved: Section, step: number) =>
      this.level(moved).map((v, i) => ((v - here[i]!) / step) * this.weight[i]!);
    const h = 1e-4;
    const gain = by({ ...s, gainDb: s.gainDb + h }, h);
    return [
      by({ ...s, frequency: s.frequency * Math.exp(h) }, h),
      gain,
      s.kind === 'peak' ? by({ ...s, q: s.q * Math.exp(h) }, h) : new Float64Array(gain.length),
    ];
  }
}

/** Stretches of one sign, the largest area first: centre, width in octaves at half height, height. */
function lobes(frequency: Float64Array, values: Float64Array) {
  const out: { at: number; width: number; height: number; area: number }[] = [];
  for (let from = 0; from < values.length; from++) {
    const sign = Math.sign(values[from]!);
    if (sign === 0) continue;
    let end = from;
    let top = from;
    let area = 0;
    while (end < values.length && Math.sign(values[end]!) === sign) {
      if (Math.abs(values[end]!) > Math.abs(values[top]!)) top = end;
      area += Math.abs(values[end]!);
      end++;
    }
    let [a, b] = [top, top];
    while (a > from && Math.abs(values[a]!) > Math.abs(values[top]!) / 2) a--;
    while (b < end - 1 && Math.abs(values[b]!) > Math.abs(values[top]!) / 2) b++;
    out.push({
      at: frequency[top]!,
      width: Math.max(1 / 24, Math.log2(frequency[b]! / frequency[a]!)),
      height: values[top]!,
      area,
    });
    from = end - 1;
  }
  return out.sort((a, b) => b.area - a.area);
}

const dot = (a: Float64Array, b: Float64Array): number => {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
};
const sumOfSquares = (a: Float64Array) => dot(a, a);

/** Gauss elimination with pivoting; the right side is the last column. */
function solve(matrix: Float64Array[]): Float64Array {
  const n = matrix.length;
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(matrix[r]![c]!) > Math.abs(matrix[pivot]![c]!)) pivot = r;
    [matrix[c], matrix[pivot]] = [matrix[pivot]!, matrix[c]!];
    const head = matrix[c]!;
    for (let r = c + 1; r < n; r++) {
      const row = matrix[r]!;
      const factor = row[c]! / head[c]!;
      if (factor !== 0) for (let k = c; k <= n; k++) row[k] = row[k]! - factor * head[k]!;
    }
  }
  const out = new Float64Array(n);
  for (let r = n - 1; r >= 0; r--) {
    let sum = matrix[r]![n]!;
    for (let c = r + 1; c < n; c++) sum -= matrix[r]![c]! * out[c]!;
    out[r] = sum / matrix[r]![r]!;
  }
  return out;
}
