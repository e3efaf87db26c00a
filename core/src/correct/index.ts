/** From measured spots and a target to a filter, its prediction, and what it leaves alone. */
export { averagePower, averageSpots, type SpotAverage } from './averageSpots.js';
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
  shapeDistance,
  type ChannelDesign,
  type ChannelRequest,
  type ExactChannel,
} from './designChannel.js';
