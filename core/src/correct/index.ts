/** From measured spots and a target to a filter, its prediction, and what it leaves alone. */
export { averagePower, averageSpots, type SpotAverage } from './averageSpots.js';
export { STARTING_GOAL } from './startingGoal.js';
export { targetCurve, type TargetHandle } from './targetCurve.js';
export { placeTarget } from './placeTarget.js';
export { meanInSpan, rmsDistance, spanWeight, type Span } from './span.js';
export { designMagnitude, type CorrectionLimits, type MagnitudeDesign } from './designMagnitude.js';
export { leftAlone, type LeftAlone } from './leftAlone.js';
export { minimumPhaseFir } from './minimumPhaseFir.js';
export { firLevelDb, largestGainDb, predictImpulse, predictPower } from './predict.js';
export {
  designChannel,
  exactChannel,
  foundChannel,
  ownSpan,
  shapeDistance,
  type ChannelDesign,
  type ChannelGoal,
  type ChannelRequest,
  type ExactChannel,
  type FoundChannel,
} from './designChannel.js';
