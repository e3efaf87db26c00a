import { needAbove } from '../limits/index.js';
import { solveLinear, type Biquad } from '../signal/index.js';
import { sectionBiquad, SHAPING_KINDS, type Section, type SectionKind } from './section.js';

/** A section as another rate plays it. */
export interface SectionAtRate {
  biquad: Biquad;
  /** largest difference from the section at the rate that it was made for, dB, up to `toHz` */
  deviationDb: number;
  /** 0.8 of the band that both rates have, Hz */
  toHz: number;
}

const SHARE_OF_BAND = 0.8;
const FROM_HZ = 10;
const POINTS = 240;
/** Where the bilinear transform at the other rate is as near as this, it is taken: it needs no fit. */
const NEAR_DB = 0.01;
const ROUNDS = 8;
const BEYOND_POINTS = 40;
/** How much what lies above the band counts, tried one after the other. */
const HELD = [0, 0.001, 0.003, 0.01, 0.03, 0.1, 0.3];

/**
 * The biquad at a rate that has the level of a section at the rate it was made for: bilinear transforms bend the upper octave
 * differently at each rate. |H|^2 is a ratio of two parabolas in sin^2(w/2), whose coefficients are fitted by least squares of the
 * relative error, weighted anew by the last denominator (Sanathanan and Koerner 1963), and split into the factors of minimum phase.
 * @param madeRate Hz
 * @param rate Hz
 */
export function sectionAtRate(section: Section, madeRate: number, rate: number): SectionAtRate {
  needAbove('sectionAtRate', 'rate it was made for', madeRate, 0);
  needAbove('sectionAtRate', 'rate', rate, 0);
  const toHz = (SHARE_OF_BAND * Math.min(madeRate, rate)) / 2;
  const made = sectionBiquad(section, madeRate);
  const frequency = Float64Array.from(
    { length: POINTS },
    (_, i) => FROM_HZ * (toHz / FROM_HZ) ** (i / (POINTS - 1)),
  );
  const wanted = frequency.map((f) => powerAt(made, sinSquared(f, madeRate)));
  const deviationOf = (biquad: Biquad) =>
    frequency.reduce(
      (most, f, i) =>
        Math.max(most, Math.abs(10 * Math.log10(powerAt(biquad, sinSquared(f, rate)) / wanted[i]!))),
      0,
    );
  const plain = sectionBiquad(section, rate);
  // what turns the phase alone has the level of nothing at every rate
  if (!isShaping(section.kind)) return { biquad: plain, deviationDb: 0, toHz };
  let best: SectionAtRate = { biquad: plain, deviationDb: deviationOf(plain), toHz };
  if (rate === madeRate || best.deviationDb <= NEAR_DB) return best;
  // above, the level is held, softly: left alone, the ratio may fall below 0 there, and is no filter's then
  const beyond = Float64Array.from(
    { length: BEYOND_POINTS },
    (_, i) => toHz + ((i + 1) / BEYOND_POINTS) * (rate / 2 - toHz),
  );
  const s = Float64Array.from([...frequency, ...beyond], (f) => sinSquared(f, rate));
  const goal = Float64Array.from([...wanted, ...beyond.map(() => wanted.at(-1)!)]);
  for (const held of HELD) {
    const share = goal.map((_, i) => (i < POINTS ? 1 : held));
    let weight = goal.map((p, i) => share[i]! / p);
    for (let round = 0; round < ROUNDS; round++) {
      const [n0, n1, n2, d1, d2] = fitRatio(s, goal, weight);
      const biquad = biquadOf([n0!, n1!, n2!], [1, d1!, d2!]);
      const deviationDb = biquad ? deviationOf(biquad) : Infinity;
      if (biquad && deviationDb < best.deviationDb) best = { biquad, deviationDb, toHz };
      const bottom = s.map((x) => 1 + d1! * x + d2! * x * x);
      if (bottom.some((v) => !(v > 0))) break;
      weight = goal.map((p, i) => share[i]! / (p * bottom[i]!));
    }
  }
  return best;
}

const isShaping = (kind: SectionKind) => (SHAPING_KINDS as readonly SectionKind[]).includes(kind);

/** The biquad of minimum phase whose |H|^2 is a ratio of two parabolas in sin^2(w/2); null where there is none. */
function biquadOf(top: [number, number, number], bottom: [number, number, number]): Biquad | null {
  const b = minimumPhaseFactor(...top);
  const a = minimumPhaseFactor(...bottom);
  return b && a && { b0: b[0] / a[0], b1: b[1] / a[0], b2: b[2] / a[0], a1: a[1] / a[0], a2: a[2] / a[0] };
}

const sinSquared = (f: number, rate: number): number => Math.sin((Math.PI * f) / rate) ** 2;

/** |H|^2 of a biquad at sin^2(w/2). */
function powerAt({ b0, b1, b2, a1, a2 }: Biquad, s: number): number {
  // cos w = 1 - 2 s, and cos 2w = 1 - 8 s + 8 s^2
  const of = (c0: number, c1: number, c2: number) =>
    (c0 + c1 + c2) ** 2 - 4 * s * (c0 * c1 + c1 * c2 + 4 * c0 * c2) + 16 * s * s * c0 * c2;
  return of(b0, b1, b2) / of(1, a1, a2);
}

/** n0, n1, n2, d1, d2 of (n0 + n1 s + n2 s^2) / (1 + d1 s + d2 s^2), by linear least squares. */
function fitRatio(s: Float64Array, wanted: Float64Array, weight: Float64Array): Float64Array {
  const rows = 5;
  const normal = Array.from({ length: rows }, () => new Float64Array(rows));
  const right = new Float64Array(rows);
  // powers of s reach over many decades: each column is brought to unit length, or the solution drowns in rounding
  const columns = [
    1,
    s,
    s.map((x) => x * x),
    wanted.map((p, i) => -p * s[i]!),
    wanted.map((p, i) => -p * s[i]! ** 2),
  ].map((column) =>
    Float64Array.from(weight, (w, i) => w * (typeof column === 'number' ? column : column[i]!)),
  );
  const length = columns.map((column) => Math.sqrt(column.reduce((sum, v) => sum + v * v, 0)) || 1);
  for (let a = 0; a < rows; a++) {
    for (let b = a; b < rows; b++) {
      let sum = 0;
      for (let i = 0; i < s.length; i++) sum += columns[a]![i]! * columns[b]![i]!;
      normal[a]![b] = normal[b]![a] = sum / (length[a]! * length[b]!);
    }
    normal[a]![a] = normal[a]![a]! + 1e-13;
    for (let i = 0; i < s.length; i++)
      right[a] = right[a]! + (columns[a]![i]! * weight[i]! * wanted[i]!) / length[a]!;
  }
  return solveLinear(normal, right).map((v, i) => v / length[i]!);
}

/**
 * c0, c1, c2 of c0 + c1/z + c2/z^2 with all zeros within the unit circle whose |.|^2 is p0 + p1 s + p2 s^2, s = sin^2(w/2); null
 * where that falls to 0 on the circle.
 */
function minimumPhaseFactor(p0: number, p1: number, p2: number): [number, number, number] | null {
  for (let i = 0; i <= 64; i++) {
    const s = i / 64;
    if (!(p0 + p1 * s + p2 * s * s > 0)) return null;
  }
  // at w = 0 and pi the sums c0 + c1 + c2 and c0 - c1 + c2 are known, and p2 = 16 c0 c2
  const [sumEven, sumOdd] = [Math.sqrt(p0), Math.sqrt(p0 + p1 + p2)];
  const even = (sumEven + sumOdd) / 2; // c0 + c2
  const c1 = (sumEven - sumOdd) / 2;
  const root = Math.sqrt(Math.max(0, even * even - p2 / 4));
  const c0 = (even + root) / 2;
  const c2 = (even - root) / 2;
  return Math.abs(c2) < c0 && Math.abs(c1) < c0 + c2 ? [c0, c1, c2] : null;
}
