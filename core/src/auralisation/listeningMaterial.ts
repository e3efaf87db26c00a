import { pinkNoise } from '../signal/index.js';
import { pluckedStrings } from './pluckedStrings.js';
import { RENDER_RATE } from './renderCandidates.js';

const NOISE_S = 6;
const NOISE_LEVEL = 0.1;

/** Material of our own: plucked strings or pink noise, stereo at 48 kHz. */
export const listeningMaterial = (kind: 'strings' | 'noise'): Float32Array[] =>
  kind === 'strings'
    ? pluckedStrings(RENDER_RATE)
    : [1, 2].map((seed) =>
        Float32Array.from(pinkNoise(NOISE_S * RENDER_RATE, RENDER_RATE, seed), (v) => NOISE_LEVEL * v),
      );
