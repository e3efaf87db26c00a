/** Where to measure: spot plans, and how much an average over spots is worth. */
export {
  layOutSpots,
  NEAR_SPOTS_M,
  SPOT_PLANS,
  SPOTS_IN_PLAN,
  tooClose,
  type PlannedSpot,
  type SpotPlan,
  type SpotPlanRequest,
} from './spotPlan.js';
export { movedMicrophone, type HeardFrom, type MovedMicrophone } from './movedMicrophone.js';
export { groundPlane, GROUND_PLANE_DB, type GroundPlane } from './groundPlane.js';
export {
  joinFloorAndEar,
  type FloorAndEarRequest,
  type JoinedResponse,
  type MicrophoneError,
} from './floorAndEar.js';
export { averageMovement, type AverageMovement } from './averageMovement.js';
