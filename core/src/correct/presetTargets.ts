import { STARTING_GOAL } from './startingGoal.js';
import type { Target } from './targetShape.js';

const target = (...handles: [number, number][]): Target => ({
  handles: handles.map(([frequency, levelDb]) => ({ frequency, levelDb })),
  lowLiftDb: 0,
  highTiltDb: 0,
  keepsRollOff: true,
  lowExtensionHz: null,
  highExtensionHz: null,
});

/** Targets to begin with, described by their numbers. */
export const READY_TARGETS: { name: string; about: string; target: Target }[] = [
  {
    name: 'Gentle slope',
    about: '+3 dB at 25 Hz, 0 at 1 kHz, −2.5 dB at 10 kHz',
    target: STARTING_GOAL.target,
  },
  { name: 'Level', about: '0 dB everywhere', target: target([1000, 0]) },
  {
    name: 'Steady fall',
    about: '−0.8 dB per octave from 30 Hz to 16 kHz',
    // a curve is level at its outer handles: those beyond both ends keep the slope straight between them
    target: target([20, 4.5], [30, 4.05], [1000, 0], [16000, -3.2], [20000, -3.46]),
  },
  {
    name: 'Warm hall',
    about: '+6 dB below 80 Hz, 0 from 300 Hz to 2 kHz, −6 dB at 12 kHz',
    target: target([40, 6], [80, 5.5], [300, 0], [2000, 0], [12000, -6]),
  },
  {
    name: 'Spoken word',
    about: '−3 dB below 100 Hz, 0 at 400 Hz, +1 dB at 3 kHz, −3 dB at 12 kHz',
    target: target([60, -4], [100, -3], [400, 0], [3000, 1], [12000, -3]),
  },
];
