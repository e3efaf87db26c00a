/** Proving that every link is right: polarity, plan, noise in words, level in steps, distances. */
export {
  findMisfits,
  FULL_TOLERANCE_S,
  indistinguishable,
  LOW_TOLERANCE_S,
  type PlanMisfit,
  type PlannedChannel,
} from './planFit.js';
export { levelSteps, MOST_STEP_DB, START_DBFS } from './levelSteps.js';
export { LOW_DISTANCE_M, travelDifference } from './travelDifference.js';
export { describeNoise, type NoiseTrait } from './describeNoise.js';
export {
  disagreements,
  fitPositions,
  impossibleTriangles,
  toleranceM,
  type Distance,
  type DistanceProblem,
} from './distances.js';
