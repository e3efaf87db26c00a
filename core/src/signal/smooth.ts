import { needAscending, needFinite, needWithin } from '../limits/index.js';
import type { RealArray } from './types.js';

/**
 * Power averaged over 1/`fraction` octave around each wanted frequency, every octave part counting alike:
 * the integral of |H|^2 d(ln f) over the band, divided by its width. On FFT bins and on a log grid this is the same
 * quantity, so the two agree. `power` is taken as constant around each of its frequencies, up to the middle (in log
 * frequency) between neighbours; bands that reach past the ends are shortened.
 * @param frequency Hz, ascending; a bin at 0 Hz is left out
 * @param power linear, as long as `frequency`
 * @param fraction 1 to 48
 * @param at Hz, ascending; by default `frequency` itself
 * @returns power at `at`; NaN at 0 Hz
 * @throws RangeError for a fraction outside 1 to 48, differing lengths, frequencies that do not ascend, or a power that is not finite
 */
export function smoothPower(
  frequency: Float64Array,
  power: RealArray,
  fraction: number,
  at: Float64Array = frequency,
): Float64Array {
  needWithin('smooth', 'fraction', fraction, 1, 48);
  const n = frequency.length;
  if (power.length !== n) throw new RangeError(`smooth: ${n} frequencies, but ${power.length} powers`);
  const first = frequency[0] === 0 ? 1 : 0;
  const cells = n - first;
  if (cells < 1) throw new RangeError('smooth: no frequency above 0 Hz');

  needFinite('smooth', 'power', power.subarray(first));
  const { logs, edges } = keptCells(frequency);
  // sums[i] is the integral up to edges[i]
  const sums = new Float64Array(cells + 1);
  for (let i = 0; i < cells; i++) sums[i + 1] = sums[i]! + power[first + i]! * (edges[i + 1]! - edges[i]!);

  const half = Math.LN2 / (2 * fraction);
  const out = new Float64Array(at.length);
  let low = 0;
  let high = 0;
  for (let j = 0; j < at.length; j++) {
    const centre = at === frequency ? logs[j]! : Math.log(at[j]!);
    const from = Math.min(Math.max(centre - half, edges[0]!), edges[cells]!);
    const to = Math.min(Math.max(centre + half, edges[0]!), edges[cells]!);
    while (low < cells - 1 && edges[low + 1]! <= from) low++;
    if (high < low) high = low;
    while (high < cells - 1 && edges[high + 1]! <= to) high++;
    if (!(to > from)) {
      out[j] = at[j]! > 0 ? power[first + low]! : NaN; // wholly outside: the nearest cell
    } else if (low === high) {
      out[j] = power[first + low]!;
    } else {
      // summed from the parts, not as a difference of two running sums alone: no loss where power falls by 100 dB
      let sum = power[first + low]! * (edges[low + 1]! - from) + power[first + high]! * (to - edges[high]!);
      if (high - low > 256) sum += sums[high]! - sums[low + 1]!;
      else for (let i = low + 1; i < high; i++) sum += power[first + i]! * (edges[i + 1]! - edges[i]!);
      out[j] = sum / (to - from);
    }
  }
  return out;
}

/** The cell of every frequency above 0 Hz, edges[i] to edges[i + 1], in ln Hz. */
interface Cells {
  logs: Float64Array;
  edges: Float64Array;
}

function cellsOf(frequency: Float64Array): Cells {
  needAscending('smooth', 'frequencies', frequency, 0);
  const first = frequency[0] === 0 ? 1 : 0;
  const cells = frequency.length - first;
  const logs = frequency.map(Math.log);
  const edges = new Float64Array(cells + 1);
  const ln = (i: number) => logs[first + i]!;
  for (let i = 1; i < cells; i++) edges[i] = 0.5 * (ln(i - 1) + ln(i));
  edges[0] = cells > 1 ? 2 * ln(0) - edges[1]! : ln(0) - 1e-6;
  edges[cells] = cells > 1 ? 2 * ln(cells - 1) - edges[cells - 1]! : ln(0) + 1e-6;
  return { logs, edges };
}

/** An axis is one array for all that is read over it, so what belongs to it is worked out once. */
const kept = new WeakMap<Float64Array, Cells>();
function keptCells(frequency: Float64Array): Cells {
  const known = kept.get(frequency) ?? cellsOf(frequency);
  kept.set(frequency, known);
  return known;
}

/** `smoothPower` of levels: dB in, dB out, averaged as power. */
export function smoothLevels(frequency: Float64Array, levels: RealArray, fraction: number): Float64Array {
  const power = Float64Array.from(levels, (level) => 10 ** (level / 10));
  return smoothPower(frequency, power, fraction).map((p) => 10 * Math.log10(p));
}

/** Where variable smoothing is 1/48, 1/6 and 1/3 octave wide; between, one passes into the next. */
const VARIABLE = [
  { f: 100, fraction: 48 },
  { f: 1000, fraction: 6 },
  { f: 10000, fraction: 3 },
] as const;

/** Smoothing that narrows towards low frequencies: single room modes stay, what overlaps is averaged. dB in, dB out. */
export function smoothVariable(frequency: Float64Array, levels: RealArray): Float64Array {
  const curves = VARIABLE.map(({ fraction }) => smoothLevels(frequency, levels, fraction));
  return frequency.map((f, i) => {
    const next = VARIABLE.findIndex((v) => f < v.f);
    if (next === 0) return curves[0]![i]!;
    if (next < 0) return curves.at(-1)![i]!;
    const [a, b] = [VARIABLE[next - 1]!.f, VARIABLE[next]!.f];
    const t = Math.log(f / a) / Math.log(b / a);
    return (1 - t) * curves[next - 1]![i]! + t * curves[next]![i]!;
  });
}
