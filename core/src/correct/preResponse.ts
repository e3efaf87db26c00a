import type { RealArray } from '../signal/index.js';

/** Where a filter's largest tap stands: what it plays is heard as arriving then. 0 without taps. */
export function mainTap(taps: RealArray): number {
  let main = 0;
  for (let i = 1; i < taps.length; i++) if (Math.abs(taps[i]!) > Math.abs(taps[main]!)) main = i;
  return main;
}

/**
 * The loudest of what a filter plays ahead of its main tap by more than a time, dB re that tap; -Infinity when nothing is.
 * @param rate Hz
 * @param aheadS seconds
 */
export function preResponseDb(taps: RealArray, rate: number, aheadS: number): number {
  const main = mainTap(taps);
  let most = 0;
  for (let i = 0; i < main - aheadS * rate; i++) most = Math.max(most, Math.abs(taps[i]!));
  return 20 * Math.log10(most / Math.abs(taps[main] ?? 1));
}
