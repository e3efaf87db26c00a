/** From measured spots and a target to a filter, its prediction, and what it leaves alone. */
export { averagePower, averageSpots, type SpotAverage } from './averageSpots.js';
export { READY_TARGETS } from './presetTargets.js';
export { STARTING_GOAL } from './startingGoal.js';
export { targetCurve, type TargetHandle } from './targetCurve.js';
export { LIFT_HZ, targetShape, TILT_HZ, type Target } from './targetShape.js';
export {
  findRollOffs,
  extendedSpan,
  keptEnds,
  rollOffDb,
  type Extension,
  type RollOff,
  type RollOffs,
} from './rollOff.js';
export { placeTarget } from './placeTarget.js';
export { isNarrow, meanInSpan, rmsDistance, spanWeight, type Span } from './span.js';
export {
  designMagnitude,
  type CorrectionLimits,
  type MagnitudeDesign,
  type StrengthPoint,
} from './designMagnitude.js';
export { designWithBass, type BassSum } from './designWithBass.js';
export { excessPhase, sharedPhase, nonMinimumPhaseShare } from './excessPhase.js';
export {
  leftAlone,
  MOVES_DB,
  NON_MINIMUM_PHASE_SHARE,
  type LeftAlone,
  type LeftReason,
} from './leftAlone.js';
export {
  correctionFir,
  MOST_PRE_S,
  type CorrectionFir,
  type PhaseStyle,
  type SharedPhase,
} from './correctionFir.js';
export { fitSections, sectionsErrorDb, type SectionFit } from './fitSections.js';
export type { SectionLimits } from './sectionLimits.js';
export { placeOverSpan, spanEdges, type SpanEdge } from './spanEdges.js';
export { HEADPHONE_TARGETS } from './headphoneTargets.js';
export { mainTap } from './mainTap.js';
export { preRinging, worstAhead, type AheadInOctave } from './preRinging.js';
export { firLevelDb, predictImpulse, predictPower } from './predict.js';
export {
  designChannel,
  measuredChannel,
  ownSpan,
  shapeDistance,
  type ChannelDesign,
  type ChannelGoal,
  type MeasuredChannel,
  type ExtensionPrice,
} from './designChannel.js';
export {
  exactChannel,
  STARTING_FILTER,
  withinProcessor,
  type ExactChannel,
  type FilterChoice,
} from './exactChannel.js';
export {
  correctHeadphones,
  headphoneCorrection,
  type CorrectedHeadphones,
  type HeadphoneGoal,
} from './correctHeadphones.js';
export { channelAtHome, type AtHome } from './atHome.js';
export { CROSSOVER_GRID, lessCalibration, seeTrace, type SeenTrace } from './seenTrace.js';
