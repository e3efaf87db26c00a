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
export { curveGroupDelayS, curveLevelDb, curvePhaseDeg, smoothedCurve } from './shownCurve.js';
export { curvesApart, incoherentStretch, type CurvesApart, type Stretch } from './readCurves.js';
export { averageCurves } from './averageCurves.js';
export { impulseOf } from './impulseOf.js';
export {
  BLOCK_LENGTHS,
  blockSizes,
  MOST_MEASUREMENTS,
  type Averaged,
  type BlockWeighting,
  type BlockLength,
  type LiveMeasurement,
  type LivePair,
  type LiveSettings,
} from './liveSetup.js';
export {
  LiveDesk,
  liveGrid,
  type LiveBlock,
  type LiveFrame,
  type MeasuredNow,
  type SeenDelay,
  type SoundNow,
} from './liveDesk.js';
export type { MeasurementState } from './measurementStream.js';
export { InputMeter, type InputLevel } from './inputMeter.js';
export { joinedPair, type JoinedPair } from './joinedPair.js';
export { History } from './history.js';
export { generatorSource, type GeneratorSignal, type GeneratorSource } from './generatorSource.js';
export { GeneratorPlayer, type GeneratorOrder } from './generatorPlayer.js';
export {
  SpectrumAnalyser,
  type SpectrumBands,
  type SpectrumReading,
  type SpectrumSettings,
} from './spectrumAnalyser.js';
export { powerInBands } from './powerBands.js';
export {
  lessNoise,
  noiseCriterion,
  noiseRating,
  RATED_OCTAVES,
  type LessNoise,
  type NoiseRating,
} from './noiseCriteria.js';
export { quietFigures, toneFigures, type QuietFigures, type ToneFigures } from './deviceFigures.js';
export { channelsApart, gainSteps, type ChannelsApart, type GainStep } from './gainStructure.js';
export { ratioOf } from './ratioOf.js';
