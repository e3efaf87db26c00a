import { needFinite, needWithin } from '../limits/index.js';
import type { RealArray } from './types.js';

/** Half width of the interpolation kernel, in samples of the lower rate, and its window's shape: -80 dB beside 1.7 kHz of transition. */
const HALF_WIDTH = 64;
const KAISER = 7.9;
/** Passed whole up to here against half the lower rate. */
const PASSED = 0.955;

/**
 * A FIR filter at another rate, with the same response over the band that both rates hold: interpolated with a windowed
 * sinc (Smith and Gossett 1984), not stretched. What lies above stays as it was at the top of the band, because the
 * filter's main tap, times its gain there, is carried over by itself.
 * @returns taps at the new rate, and by how much the filter now begins later, seconds
 * @throws RangeError for rates outside 1 kHz to 1 MHz, or a tap that is not finite
 */
export function resampleFir(
  fir: RealArray,
  from: number,
  to: number,
): { fir: Float64Array; addedLatencyS: number } {
  needWithin('resampleFir', 'old rate', from, 1000, 1e6);
  needWithin('resampleFir', 'new rate', to, 1000, 1e6);
  needFinite('resampleFir', 'taps', fir);
  if (from === to) return { fir: Float64Array.from(fir), addedLatencyS: 0 };
  let main = 0;
  let top = 0; // gain at half the rate, seen from the main tap
  for (let i = 0; i < fir.length; i++) if (Math.abs(fir[i]!) > Math.abs(fir[main]!)) main = i;
  for (let i = 0; i < fir.length; i++) top += fir[i]! * ((i - main) % 2 === 0 ? 1 : -1);
  const rest = Float64Array.from(fir);
  rest[main] = rest[main]! - top;

  const low = Math.min(from, to);
  const cutoff = (PASSED * low) / from; // against half the old rate
  const reach = (HALF_WIDTH * from) / low; // in old samples
  const lead = Math.ceil((reach * to) / from);
  const out = new Float64Array(lead + Math.ceil(((fir.length + reach) * to) / from));
  for (let m = 0; m < out.length; m++) {
    const t = ((m - lead) * from) / to; // in old samples
    const first = Math.max(0, Math.ceil(t - reach));
    const last = Math.min(fir.length - 1, Math.floor(t + reach));
    let sum = 0;
    for (let n = first; n <= last; n++)
      sum += rest[n]! * cutoff * sinc(cutoff * (t - n)) * kaiser((t - n) / reach);
    out[m] = (sum * from) / to;
  }
  // the main tap lies between two new samples as a rule: a sinc at the new rate carries it, exact where it meets one
  const at = lead + (main * to) / from;
  for (let m = Math.max(0, Math.ceil(at - HALF_WIDTH)); m <= Math.min(out.length - 1, at + HALF_WIDTH); m++)
    out[m] = out[m]! + top * sinc(m - at) * kaiser((m - at) / HALF_WIDTH);
  return { fir: out, addedLatencyS: lead / to };
}

const sinc = (x: number) => (Math.abs(x) < 1e-12 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x));
const kaiser = (x: number) => (Math.abs(x) >= 1 ? 0 : bessel(KAISER * Math.sqrt(1 - x * x)) / bessel(KAISER));

/** Modified Bessel function of the first kind, order 0, by its series. */
function bessel(x: number): number {
  let [sum, term] = [1, 1];
  for (let k = 1; term > 1e-12 * sum; k++) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}
