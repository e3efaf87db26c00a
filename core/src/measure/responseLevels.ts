import { dbOfPower, logGrid } from '../signal/index.js';
import { powerOnGrid } from './spectrumOnGrid.js';

/** Level of an impulse response that comes as a file, averaged over 1/24 octave, 20 Hz to 20 kHz or as far as its rate goes; dB. */
export function responseLevels(
  samples: Float32Array,
  rate: number,
): { frequency: number[]; levelDb: number[] } {
  const grid = logGrid(20, Math.min(20000, 0.45 * rate), 24);
  const levels = powerOnGrid({ samples, rate, zero: 0 }, grid, 24).map(dbOfPower);
  return { frequency: [...grid], levelDb: [...levels] };
}
