/** Signals and spectra: transforms, sweeps, noise, filters, smoothing, levels. */
export type { FrequencyResponse, HalfSpectrum, ImpulseResponse, RealArray } from './types.js';
export { binFrequencies, fftSizeFor, inverseRealFft, realFft } from './fft.js';
export { delaySpectrum, multiplySpectra, powerOf } from './halfSpectrum.js';
export { dbOfGain, dbOfPower, gainOfDb, levelDb, powerOfDb } from './decibels.js';
export { cosineStep, hannRise, hannWindow } from './windows.js';
export { convolve, convolveLong } from './convolve.js';
export { resampleFir } from './resampleFir.js';
export {
  exponentialSweep,
  harmonicLead,
  sweepSpectra,
  type Sweep,
  type SweepRequest,
  type SweepSpectra,
} from './sweep.js';
export { logGrid, octaveBands, type Band } from './logGrid.js';
export { smoothLevels, smoothPower, smoothVariable } from './smooth.js';
export { median } from './median.js';
export { interpolateLog } from './interpolate.js';
export { minimumPhase } from './minimumPhase.js';
export { seededRandom, seedFrom, type Random } from './random.js';
export { pinkNoise, shapedNoise, whiteNoise } from './noise.js';
export {
  allPass,
  biquadAt,
  biquadSpectrum,
  butterworth,
  filterBiquads,
  highShelf,
  linkwitzRiley,
  lowShelf,
  peaking,
  type Biquad,
} from './biquad.js';
