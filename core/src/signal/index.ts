/** Signals and spectra: transforms, sweeps, noise, filters, smoothing, levels. */
export type { ComplexTrace, ImpulseResponse, RealArray } from './types.js';
export {
  binFrequencies,
  emptySpectrum,
  fftSizeFor,
  fftSizeOf,
  inverseRealFft,
  FINE_SIZE,
  isBinAxis,
  realFft,
} from './fft.js';
export {
  addTo,
  constantTrace,
  delayTrace,
  divideTraces,
  multiplyTraces,
  powerOf,
  scaleTrace,
} from './complexTrace.js';
export { dbOfGain, dbOfPower, gainOfDb, levelDb, powerOfDb } from './decibels.js';
export { cosineStep, hannRise, hannWindow } from './windows.js';
export { convolve, convolveLong } from './convolve.js';
export { partitionFilter, PartitionedInput, type PartitionedFilter } from './partitioned.js';
export { solveLinear } from './solveLinear.js';
export {
  centralDifferences,
  leastSquares,
  type LeastSquares,
  type LeastSquaresProblem,
} from './leastSquares.js';
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
export { inSteps } from './inSteps.js';
export { median } from './median.js';
export { interpolateLog, interpolateSmooth } from './interpolate.js';
export { minimumPhase, minimumPhaseOfLog } from './minimumPhase.js';
export { seededRandom, seedFrom, type Random } from './random.js';
export { pinkNoise, shapedNoise, whiteNoise } from './noise.js';
export {
  allPass,
  firstOrderAllPass,
  biquadAt,
  biquadSpectrum,
  biquadTrace,
  butterworth,
  filterBiquads,
  highShelf,
  linkwitzRiley,
  lowShelf,
  peaking,
  type Biquad,
} from './biquad.js';
