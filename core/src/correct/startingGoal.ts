import type { StrengthPoint } from './designMagnitude.js';
import type { Target } from './targetShape.js';

/** What a correction aims at before anyone has touched it: a slope that falls by 5.5 dB, moderate limits. */
export const STARTING_GOAL: {
  target: Target;
  strength: number;
  strengthPoints: StrengthPoint[];
  maxBoostDb: number;
  maxCutDb: number;
} = {
  target: {
    handles: [
      { frequency: 25, levelDb: 3 },
      { frequency: 100, levelDb: 2 },
      { frequency: 1000, levelDb: 0 },
      { frequency: 10000, levelDb: -2.5 },
    ],
    lowLiftDb: 0,
    highTiltDb: 0,
    keepsRollOff: true,
    lowExtensionHz: null,
    highExtensionHz: null,
  },
  strength: 1,
  strengthPoints: [],
  maxBoostDb: 6,
  maxCutDb: 15,
};
