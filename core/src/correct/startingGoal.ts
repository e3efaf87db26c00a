import type { TargetHandle } from './targetCurve.js';

/** What a correction aims at before anyone has touched it: a slope that falls by 5.5 dB, moderate limits. */
export const STARTING_GOAL: {
  handles: TargetHandle[];
  strength: number;
  maxBoostDb: number;
  maxCutDb: number;
} = {
  handles: [
    { frequency: 25, levelDb: 3 },
    { frequency: 100, levelDb: 2 },
    { frequency: 1000, levelDb: 0 },
    { frequency: 10000, levelDb: -2.5 },
  ],
  strength: 1,
  maxBoostDb: 6,
  maxCutDb: 15,
};
