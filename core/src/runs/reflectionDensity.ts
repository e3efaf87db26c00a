import { needAbove } from '../limits/index.js';
import { BIN_S, type Heard } from '../tracing/index.js';

/** How many reflections there are, over time. */
export interface ReflectionDensity {
  /** in each millisecond after the direct sound: what the model brought, and what the volume asks for */
  perMs: Float64Array;
  askedPerMs: Float64Array;
  /** from then on there are as many as wanted, seconds after the direct sound; null where that never comes */
  denseFromS: number | null;
}

/** Looked at over so many milliseconds. */
const SMOOTH = 10;

/**
 * Reflections per millisecond, against 4 pi c^3 t^2 / V of any room of this volume.
 * @param wanted per millisecond; about 50 is a common aim
 */
export function reflectionDensity(
  { arrivals, bins, counts, directS }: Heard,
  volume: number,
  speed: number,
  wanted: number,
): ReflectionDensity {
  needAbove('reflectionDensity', 'volume in cubic metres', volume, 0);
  needAbove('reflectionDensity', 'reflections wanted per ms', wanted, 0);
  const all = counts.slice();
  for (const { laterS } of arrivals) {
    const bin = Math.floor(laterS / BIN_S + 1e-9);
    if (bin >= 0 && bin < bins) all[bin] = all[bin]! + 1;
  }
  const sums = new Float64Array(bins + 1);
  all.forEach((n, b) => (sums[b + 1] = sums[b]! + n));
  const perMs = all.map((_, b) => {
    const [from, to] = [Math.max(0, b - SMOOTH / 2), Math.min(bins, b + SMOOTH / 2)];
    return (sums[to]! - sums[from]!) / (to - from) / (BIN_S * 1000);
  });
  const askedPerMs = all.map(
    (_, b) => (4 * Math.PI * speed ** 3 * (directS + (b + 0.5) * BIN_S) ** 2) / volume / 1000,
  );
  // the very end has lost some already: rays are followed to the end of the response only
  const last = Math.floor(0.95 * bins);
  let dense = last;
  while (dense > 0 && perMs[dense - 1]! >= wanted) dense--;
  return { perMs, askedPerMs, denseFromS: dense < last ? dense * BIN_S : null };
}
