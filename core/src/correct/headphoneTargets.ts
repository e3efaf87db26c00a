import type { Target } from './targetShape.js';

/** ISO 11904-1:2002, table 1: level at the eardrum over that of the field without the listener, dB, per third octave. */
const EARDRUM: [frequency: number, freeFieldDb: number, diffuseFieldDb: number][] = [
  [100, 0, 0],
  [125, 0.2, 0.2],
  [160, 0.4, 0.4],
  [200, 0.6, 0.6],
  [250, 0.8, 0.8],
  [315, 1.1, 1.1],
  [400, 1.5, 1.5],
  [500, 2, 2.1],
  [630, 2.3, 2.8],
  [800, 3.1, 3.3],
  [1000, 2.7, 4.1],
  [1250, 2.9, 5.5],
  [1600, 5.8, 7.7],
  [2000, 12.4, 11],
  [2500, 15.7, 15.3],
  [3150, 14.9, 15.7],
  [4000, 13.2, 12.9],
  [5000, 8.9, 10.6],
  [6300, 3.1, 9.4],
  [8000, -1.4, 9.5],
  [10000, -3.8, 6.8],
  [12500, -0.1, 3.8],
  [16000, -0.4, 0.7],
];

const target = (column: 1 | 2): Target => ({
  handles: EARDRUM.map((row) => ({ frequency: row[0], levelDb: row[column] })),
  lowLiftDb: 0,
  highTiltDb: 0,
  // what headphones lack at their ends is asked for within the limits: no loudspeaker's roll-off is in these curves
  keepsRollOff: false,
  lowExtensionHz: null,
  highExtensionHz: null,
});

/** What headphones shall give at the eardrum so that they sound as a field does. */
export const HEADPHONE_TARGETS: { name: string; about: string; target: Target }[] = [
  { name: 'Diffuse field', about: 'from all around, at the eardrum (ISO 11904-1)', target: target(2) },
  { name: 'Free field, from ahead', about: 'from ahead, at the eardrum (ISO 11904-1)', target: target(1) },
];
