import { findArrival, findPolarity } from '../measure/index.js';
import { dbOfPower, smoothLevels } from '../signal/index.js';
import type { ChannelDesign } from './designChannel.js';
import type { SeenTrace } from './seenTrace.js';

/** What one channel is at the home spot. */
export interface AtHome {
  /** level within its span against the target's shape, after the correction, dB */
  levelDb: number;
  /** seconds from the drive to the arrival of its minimum-phase equivalent; null where that cannot be told */
  arrivalS: number | null;
}

/** A channel at the home spot. @param filterDb what its filter does, on the grid */
export function channelAtHome(
  grid: Float64Array,
  { targetDb, targetOffsetDb, span }: ChannelDesign,
  { impulse, power }: SeenTrace,
  filterDb: Float64Array,
): AtHome {
  const levels = smoothLevels(
    grid,
    power.map((p, i) => dbOfPower(p) + filterDb[i]!),
    3,
  );
  const off = [...levels].flatMap((v, i) =>
    grid[i]! >= span.from && grid[i]! <= span.to ? [v - (targetDb[i]! - targetOffsetDb)] : [],
  );
  const arrival = findArrival(impulse);
  const polarity = arrival && findPolarity(impulse, arrival.onsetS, span);
  return { levelDb: off.reduce((a, b) => a + b, 0) / off.length, arrivalS: polarity?.arrivalS ?? null };
}
