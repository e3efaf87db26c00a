import { needAbove } from '../limits/index.js';

/** Width between the points of half the gain in dB, octaves, of a quality. */
export function octavesOfQ(q: number): number {
  needAbove('octavesOfQ', 'q', q, 0);
  return (2 / Math.LN2) * Math.asinh(1 / (2 * q));
}

/** Quality of a width between the points of half the gain in dB, octaves. */
export function qOfOctaves(octaves: number): number {
  needAbove('qOfOctaves', 'octaves', octaves, 0);
  return 1 / (2 * Math.sinh((octaves * Math.LN2) / 2));
}
