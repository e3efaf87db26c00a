import type { RealArray } from '../signal/index.js';

/** Where a recording hit the end of its range. */
export interface Clipping {
  count: number;
  /** seconds from the start of the recording */
  firstAtS: number;
}

/**
 * Flat tops: two or more neighbouring samples within 0.01 dB of full scale on the same side.
 * @returns null when there are none
 */
export function findClipping(recording: RealArray, rate: number, fullScale = 1): Clipping | null {
  const limit = fullScale * 0.99885;
  let count = 0;
  let first = -1;
  for (let i = 1; i < recording.length; i++) {
    const [a, b] = [recording[i - 1]!, recording[i]!];
    if ((a >= limit && b >= limit) || (a <= -limit && b <= -limit)) {
      if (first < 0) first = i - 1;
      count++;
    }
  }
  return count ? { count, firstAtS: first / rate } : null;
}
