/** What is measured while it sounds: inputs that stream, their averaged spectra, transfer functions, delays. */
export { PairStream, type BlockState, type PairBlock } from './pairStream.js';
export {
  CrossSpectraAverager,
  type Averaging,
  type CrossSpectra,
  type CrossSpectraSetup,
} from './crossSpectra.js';
export { mergedCurve, transferCurve, withoutDelay, type TransferCurve } from './transferFunction.js';
export { findDelay, type FoundDelay } from './findDelay.js';
