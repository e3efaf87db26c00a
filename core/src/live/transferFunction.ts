import { needAscending } from '../limits/index.js';
import { cosineStep } from '../signal/index.js';
import type { CrossSpectra } from './crossSpectra.js';

/** A transfer function on a grid; NaN where nothing is known. */
export interface TransferCurve {
  /** Hz */
  frequency: Float64Array;
  re: Float64Array;
  im: Float64Array;
  /** 0 to 1: which part of the measured power comes from the reference; NaN of a single block, which tells nothing of it */
  coherence: Float64Array;
}

/** Below this part of its largest power the reference has nothing to compare with, dB. */
const NOTHING_DB = -100;

/**
 * Transfer function from averages, H = Gxy / Gxx (Bendat and Piersol, H1: noise at the measured input does not move it), at the
 * frequencies of a grid: powers and cross spectrum are summed over the band that each stands for; where bins are sparser than that,
 * what lies between two of them is taken from both.
 *
 * Coherence |Gxy|^2 / (Gxx Gyy) is that of the bins, each by its power; what few blocks pretend of it, (1 - c)^2 / blocks, is taken off.
 * @param grid Hz, ascending, at least two
 * @param how `complex` as above; `power` gives the level by the powers alone, as of a measured input that moves
 */
export function transferCurve(
  { frequency, reference, measured, re, im, blocks }: CrossSpectra,
  grid: Float64Array,
  how: 'complex' | 'power' = 'complex',
): TransferCurve {
  needAscending('transferCurve', 'grid', grid, 0);
  if (grid.length < 2) throw new RangeError('transferCurve: a grid has at least two frequencies');
  const step = frequency[1]! - frequency[0]!;
  const floor = reference.reduce((a, b) => Math.max(a, b), 0) * 10 ** (NOTHING_DB / 10);
  const out: TransferCurve = {
    frequency: grid,
    re: new Float64Array(grid.length).fill(NaN),
    im: new Float64Array(grid.length).fill(NaN),
    coherence: new Float64Array(grid.length).fill(NaN),
  };
  grid.forEach((f, n) => {
    const low = Math.sqrt(f * (grid[n - 1] ?? (f * f) / grid[n + 1]!));
    const high = Math.sqrt(f * (grid[n + 1] ?? (f * f) / grid[n - 1]!));
    const [from, to] = [Math.ceil(low / step), Math.floor(high / step)];
    let [x, y, a, b, coherent] = [0, 0, 0, 0, 0];
    const take = (k: number, share: number): boolean => {
      if (!(k > 0 && k < frequency.length - 1 && reference[k]! > floor)) return false;
      const part = (re[k]! * re[k]! + im[k]! * im[k]!) / (reference[k]! * measured[k]!);
      x += share * reference[k]!;
      y += share * measured[k]!;
      a += share * re[k]!;
      b += share * im[k]!;
      coherent += share * measured[k]! * Math.min(1, part);
      return true;
    };
    if (to >= from) {
      for (let k = from; k <= to; k++) if (!take(k, 1)) return;
    } else {
      // no bin within the band: the two beside it, by how near they are
      const below = Math.floor(f / step);
      const above = f / step - below;
      if (above < 1 && !take(below, 1 - above)) return;
      if (above > 0 && !take(below + 1, above)) return;
    }
    const size = how === 'power' ? Math.sqrt(y / x) / Math.hypot(a, b) : 1 / x;
    out.re[n] = size * a;
    out.im[n] = size * b;
    const seen = coherent / y;
    if (blocks > 1.5) out.coherence[n] = Math.max(0, seen - (1 - seen) ** 2 / blocks);
  });
  return out;
}

/** The measured input later by a part of a sample, or by what was set by hand: taken off a curve. @param delayS seconds */
export function withoutDelay(curve: TransferCurve, delayS: number): TransferCurve {
  const turn = curve.frequency.map((f) => 2 * Math.PI * f * delayS);
  return {
    ...curve,
    re: curve.re.map((x, n) => x * Math.cos(turn[n]!) - curve.im[n]! * Math.sin(turn[n]!)),
    im: curve.im.map((y, n) => y * Math.cos(turn[n]!) + curve.re[n]! * Math.sin(turn[n]!)),
  };
}

/**
 * One curve of several that were made with blocks of different length: the longest in the lows, the shortest in the highs. Where a
 * length has so many periods in its block that a shorter one has enough of them, that one takes over, over an octave.
 * @param curves on the same grid, from the longest block to the shortest
 * @param fromHz where each but the first has taken over; as many as `curves` less one, ascending
 */
export function mergedCurve(curves: readonly TransferCurve[], fromHz: readonly number[]): TransferCurve {
  const [first, ...shorter] = curves;
  if (!first || shorter.length !== fromHz.length)
    throw new RangeError(
      `mergedCurve: ${curves.length} curves with ${fromHz.length} frequencies between them`,
    );
  needAscending('mergedCurve', 'frequencies between curves', fromHz, 0);
  const { frequency } = first;
  if (shorter.some((c) => c.frequency.length !== frequency.length))
    throw new RangeError('mergedCurve: the curves have different grids');
  const merged = (of: 're' | 'im' | 'coherence') =>
    frequency.map((f, n) =>
      shorter.reduce((value, curve, i) => {
        const share = cosineStep(Math.log2(f / fromHz[i]!), -1, 0);
        return share === 0
          ? value
          : share === 1
            ? curve[of][n]!
            : (1 - share) * value + share * curve[of][n]!;
      }, first[of][n]!),
    );
  return { frequency, re: merged('re'), im: merged('im'), coherence: merged('coherence') };
}
