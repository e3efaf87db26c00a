import { cosineStep } from '../signal/index.js';
import { BIN_S } from '../tracing/index.js';

/** Of the integrated decay this is looked at, dB; beyond it goes on as steep as it was there. */
const SEEN_DB = { from: -3, to: -35 };
/** So many bins must lie in it. */
const LEAST_BINS = 20;
/** Until then energy is as it was brought, but spread over so much of the time since the direct sound to both sides. */
const AS_BROUGHT = { spread: 0.2, toS: 0.04, overS: 0.12 };

/**
 * Energy over time without the lumps of few rays, which no room has: late it is what makes the integrated decay (Schroeder 1965) a straight line, or
 * one that bends upwards, through the one that was brought.
 * @param row energies in bins of `BIN_S` from the direct sound on, at least 0
 */
export function smoothDecay(row: Float64Array): Float64Array {
  const early = spread(row);
  const line = decayLine(row);
  if (!line) return early;
  return early.map((e, b) => {
    const s = (b + 0.5) * BIN_S;
    const share = cosineStep(s, AS_BROUGHT.overS, AS_BROUGHT.toS);
    return share === 1 ? e : share * e + (1 - share) * line(b);
  });
}

/** Energy in each bin of a decay without lumps; null where too little was brought. */
function decayLine(row: Float64Array): ((bin: number) => number) | null {
  const bins = row.length;
  const levelDb = new Float64Array(bins);
  let left = 0;
  for (let b = bins - 1; b >= 0; b--) levelDb[b] = left += row[b]!;
  const all = left;
  if (!(all > 0)) return null;
  for (let b = 0; b < bins; b++) levelDb[b] = 10 * Math.log10(levelDb[b]! / all);
  const first = levelDb.findIndex((l) => l <= SEEN_DB.from);
  let last = levelDb.findIndex((l) => l <= SEEN_DB.to);
  if (last < 0) last = bins;
  if (first < 0 || last - first < LEAST_BINS) return null;
  const [c0, c1, c2] = bent(levelDb, first, last);
  const end = last - 1;
  const [endDb, endSlope] = [c0 + c1 * end + c2 * end * end, c1 + 2 * c2 * end];
  return (b) => {
    const db = b < end ? c0 + c1 * b + c2 * b * b : endDb + endSlope * (b - end);
    const slope = b < end ? c1 + 2 * c2 * b : endSlope;
    return all * 10 ** (db / 10) * Math.max(0, (-slope * Math.LN10) / 10);
  };
}

/** The parabola through levels by least squares, upwards and falling throughout; else the straight line. */
function bent(levels: Float64Array, from: number, to: number): [number, number, number] {
  const n = to - from;
  const [middle, half] = [(from + to - 1) / 2, n / 2];
  // Legendre polynomials on -1 to 1 are about orthogonal over so many points
  let [s0, s1, s2, n1, n2] = [0, 0, 0, 0, 0];
  for (let b = from; b < to; b++) {
    const u = (b - middle) / half;
    const p2 = (3 * u * u - 1) / 2;
    s0 += levels[b]!;
    s1 += levels[b]! * u;
    s2 += levels[b]! * p2;
    n1 += u * u;
    n2 += p2 * p2;
  }
  const [a0, a1] = [s0 / n, s1 / n1];
  const a2 = s2 / n2;
  const bends = a2 > 0 && a1 + 3 * a2 < 0.2 * a1 ? a2 : 0;
  const curve = (1.5 * bends) / half ** 2;
  const slope = a1 / half;
  return [a0 - bends / 2 - slope * middle + curve * middle ** 2, slope - 2 * curve * middle, curve];
}

function spread(row: Float64Array): Float64Array {
  const upTo = new Float64Array(row.length + 1);
  row.forEach((e, b) => (upTo[b + 1] = upTo[b]! + e));
  return row.map((_, b) => {
    const half = Math.min(Math.floor(AS_BROUGHT.spread * b), row.length - 1 - b);
    return (upTo[b + half + 1]! - upTo[b - half]!) / (2 * half + 1);
  });
}
