import { dbOfPower, type ImpulseResponse } from '../signal/index.js';
import { fineSpectrum, powerOnGrid } from './spectrumOnGrid.js';

/** A response at the frequencies of a grid: level averaged over 1/48 octave, phase at the frequency itself. */
export interface SampledResponse {
  frequency: Float64Array;
  levelDb: Float64Array;
  /** degrees, -180 to 180, the time from the response's zero included */
  phaseDeg: Float64Array;
}

/** Level and phase of an impulse response on a grid (Hz); the phase is read between FFT bins by linear interpolation. */
export function responseOnGrid(impulse: ImpulseResponse, grid: Float64Array): SampledResponse {
  const { rate, zero } = impulse;
  const spectrum = fineSpectrum(impulse);
  const { size, re, im } = spectrum;
  const phaseDeg = grid.map((f) => {
    // the bulk of the delay is taken out ahead of interpolating, so that neighbouring bins do not turn against each other
    const x = (f * size) / rate;
    const k = Math.min(Math.floor(x), re.length - 2);
    const at = (bin: number) => {
      const turn = (2 * Math.PI * bin * zero) / size;
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      return [re[bin]! * c - im[bin]! * s, re[bin]! * s + im[bin]! * c] as const;
    };
    const [a, b] = [at(k), at(k + 1)];
    const t = x - k;
    return (Math.atan2(a[1] + t * (b[1] - a[1]), a[0] + t * (b[0] - a[0])) * 180) / Math.PI;
  });
  return { frequency: grid, levelDb: powerOnGrid(impulse, grid, 48, spectrum).map(dbOfPower), phaseDeg };
}
