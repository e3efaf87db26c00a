import { needWithin } from '../limits/index.js';
import type { Complex } from './radiators.js';

/** A filter between the ways of a loudspeaker: Linkwitz and Riley's of an even order, as analog circuits are. */
export interface WayFilter {
  kind: 'low-pass' | 'high-pass';
  frequency: number;
  /** 2, 4 or 8 */
  order: 2 | 4 | 8;
}

/** Its response at a frequency: a Butterworth of half the order, twice (Linkwitz 1976). */
export function crossoverTrace({ kind, frequency: corner, order }: WayFilter, frequency: number): Complex {
  needWithin('crossoverTrace', 'corner in Hz', corner, 1, 100_000);
  const half = order / 2;
  const w = frequency / corner;
  let h: Complex = { re: 1, im: 0 };
  const divide = (a: number, b: number) => {
    const p = a * a + b * b;
    h = { re: (h.re * a + h.im * b) / p, im: (h.im * a - h.re * b) / p };
  };
  const through = () => {
    // poles in pairs, and a real one where the order is odd
    for (let i = 0; i < Math.floor(half / 2); i++)
      divide(1 - w * w, 2 * w * Math.sin((Math.PI * (2 * i + 1)) / (2 * half)));
    if (half % 2 === 1) divide(1, w);
    if (kind === 'high-pass') for (let i = 0; i < half; i++) h = { re: -h.im * w, im: h.re * w };
  };
  through();
  through();
  // of order 2 the high one is turned over, so that both add up
  return order === 2 && kind === 'high-pass' ? { re: -h.re, im: -h.im } : h;
}
