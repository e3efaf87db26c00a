/** From a recording to a trusted impulse response: deconvolution, alignment, noise, disturbances, verdict. */
export { continueLows, type ContinuedLows } from './continuedLows.js';
export { deconvolve, impulseFrom, loopbackTime } from './deconvolve.js';
export { cutImpulse, windowImpulse, type TimeWindow } from './timeWindow.js';
export { trimNoise, type DecayEnd } from './trimNoise.js';
export { splitHarmonics, type HarmonicResponse } from './harmonics.js';
export { harmonicCurves, packHarmonics, unpackHarmonics, type HarmonicCurves } from './harmonicCurves.js';
export { averageRepeats } from './averageRepeats.js';
export { likeness, REFERENCE_TAIL_S, referenceResponse, SAME_PLACE } from './referenceClick.js';
export { bandEnergy } from './bandPower.js';
export { aboveNoiseDb, noiseMovesDb, responseMargins } from './noiseMoves.js';
export { noiseSpectrum, signalToNoise, thirdOctaves, type BandMargin } from './signalToNoise.js';
export { findPolarity, type Polarity } from './polarity.js';
export { findTimingClick, timingClick } from './timingClick.js';
export { divideOut } from './divideOut.js';
export { findClipping, type Clipping } from './clipping.js';
export { findArrival, type Arrival } from './arrival.js';
export { usableBand } from './usableBand.js';
export { findDisturbances } from './disturbance.js';
export type { Disturbance } from './disturbanceFound.js';
export {
  AIM_DB,
  DOUBTFUL_DB,
  judgeSweep,
  ownMargin,
  SILENT_DB,
  weakestBand,
  type Reason,
  type SweepEvidence,
  type Verdict,
} from './verdict.js';
export {
  analyseSweep,
  STORED_SAMPLES,
  type AnalysedSweep,
  type AnalysisStep,
  type SweepRecording,
} from './analyseSweep.js';
export { powerOnGrid } from './spectrumOnGrid.js';
export { responseOnGrid, type SampledResponse } from './responseOnGrid.js';
export { analyseTake, type TakeSurroundings } from './analyseTake.js';
export { measureRoundTrip, type RoundTripFound } from './measureRoundTrip.js';
export { responseLevels } from './responseLevels.js';
