import { needAbove, needWithin } from '../limits/index.js';
import { pinkNoise, shapedNoise } from '../signal/index.js';
import { pluckedStrings } from './pluckedStrings.js';
import { RENDER_RATE } from './renderCandidates.js';

const NOISE_S = 6;
const NOISE_LEVEL = 0.1;
/** Beyond the ends of a band power falls by this power of the frequency: 48 dB per octave. */
const EDGE_POWER = 16;

/** Ends of a band, Hz. */
export interface NoiseBand {
  from: number;
  to: number;
}

/**
 * Material of our own, stereo at 48 kHz: plucked strings; pink noise, another one on each side; or pink noise of a band, the same on both sides,
 * so that what plays them adds up or cancels.
 */
export const listeningMaterial = (kind: 'strings' | 'noise' | NoiseBand): Float32Array[] => {
  if (kind === 'strings') return pluckedStrings(RENDER_RATE);
  const length = NOISE_S * RENDER_RATE;
  const softly = (noise: Float64Array) => Float32Array.from(noise, (v) => NOISE_LEVEL * v);
  if (kind === 'noise') return [1, 2].map((seed) => softly(pinkNoise(length, RENDER_RATE, seed)));
  needWithin('listeningMaterial', 'lower end of the band in Hz', kind.from, 10, RENDER_RATE / 2);
  needAbove('listeningMaterial', 'upper end of the band in Hz', kind.to, kind.from);
  const one = softly(shapedNoise(length, RENDER_RATE, 1, (f) => densityIn(kind, f)));
  return [one, one.slice()];
};

const densityIn = ({ from, to }: NoiseBand, f: number): number =>
  f < from ? (f / from) ** EDGE_POWER / from : f > to ? (to / f) ** EDGE_POWER / to : 1 / f;
