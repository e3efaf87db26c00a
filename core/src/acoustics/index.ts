/** What a room does, in figures: decays, reverberation, clarity, speech transmission. */
export { findDecay, fitLine, reverberation, type Decay, type Found } from './decay.js';
export {
  FIGURE_OCTAVES,
  FIGURES,
  overSpots,
  roomFigures,
  type FigureName,
  type FigureOverSpots,
  type OctaveFigures,
} from './roomFigures.js';
export {
  indexOfMatrix,
  modulationTransfer,
  MODULATION_HZ,
  SPEECH_OCTAVES,
  SPEECH_SPECTRUM_DB,
  speechTransmission,
  type SpeechAndNoise,
} from './speechTransmission.js';
export { expectedFigures, type ExpectedFigures } from './revisedTheory.js';
export { octaveEnergy, bandGain, bandSignals, bandSpectrum } from './octaveFilter.js';
export {
  IACC_NOTICEABLE,
  interauralCorrelation,
  type InterauralCorrelation,
} from './interauralCorrelation.js';
export {
  disturbedShare,
  ECHO_SIGNALS,
  echoCriterion,
  type EchoCriterion,
  type EchoSignal,
} from './echoCriterion.js';
