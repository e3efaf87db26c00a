import type { RealArray } from '../signal/index.js';

/** Where a filter's largest tap stands: what it plays is heard as arriving then. 0 without taps. */
export function mainTap(taps: RealArray): number {
  let main = 0;
  for (let i = 1; i < taps.length; i++) if (Math.abs(taps[i]!) > Math.abs(taps[main]!)) main = i;
  return main;
}
