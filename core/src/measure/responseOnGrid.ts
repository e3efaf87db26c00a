import { fineSpectrum, responseAt } from '../path/index.js';
import { dbOfPower, type ImpulseResponse } from '../signal/index.js';
import { powerOnGrid } from './spectrumOnGrid.js';

/** A response at the frequencies of a grid: level averaged over 1/48 octave, phase at the frequency itself. */
export interface SampledResponse {
  frequency: Float64Array;
  levelDb: Float64Array;
  /** degrees, -180 to 180, the time from the response's zero included */
  phaseDeg: Float64Array;
}

/** Level and phase of an impulse response on a grid (Hz). */
export function responseOnGrid(impulse: ImpulseResponse, grid: Float64Array): SampledResponse {
  const spectrum = fineSpectrum(impulse);
  const { re, im } = responseAt(impulse, grid, spectrum);
  return {
    frequency: grid,
    levelDb: powerOnGrid(impulse, grid, 48, spectrum).map(dbOfPower),
    phaseDeg: re.map((x, k) => (Math.atan2(im[k]!, x) * 180) / Math.PI),
  };
}
