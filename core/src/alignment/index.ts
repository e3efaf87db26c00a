/** Several channels together: level and delay, subwoofers over all seats, and the joint between channel and subwoofers. */
export { complexOnGrid, type ComplexCurve } from './complexOnGrid.js';
export { levelsAndDelays, MOST_TRIM_DB, type ChannelAtHome, type LevelAndDelay } from './levelsAndDelays.js';
export {
  plainSub,
  randomSettings,
  seatDeviation,
  settingAt,
  STARTING_SUB_LIMITS,
  subsTogether,
  sumOfSubs,
  type SubLimits,
  type SubResponses,
  type SubSetting,
  type SubsTogether,
} from './subwoofers.js';
export {
  averageLevel,
  fedCurve,
  levelApart,
  plusCurve,
  sideCurve,
  timesCurve,
  type JointSide,
} from './sides.js';
export {
  bestJoint,
  crossoverBiquads,
  filteredCurve,
  jointOf,
  type CrossoverFilter,
  type Joint,
  type JointSetting,
} from './joint.js';
