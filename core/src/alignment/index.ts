/** Several channels together: level and delay, subwoofers over all seats, and the crossover between channel and subwoofers. */
export { levelsAndDelays, MOST_TRIM_DB, type ChannelAtHome, type LevelAndDelay } from './levelsAndDelays.js';
export {
  randomSettings,
  seatDeviation,
  STARTING_SUB_LIMITS,
  subsTogether,
  sumOfSubs,
  type SubLimits,
  type SubResponses,
  type SubsTogether,
} from './subwoofers.js';
export { averageLevel, levelApart, summationOf, type Summation } from './summation.js';
export {
  alignCrossover,
  highPassed,
  lowPassed,
  type CrossoverAlignment,
  type CrossoverSetting,
} from './crossoverAlignment.js';
export {
  LOW_BAND,
  readCrossover,
  sidesOf,
  type CrossoverPart,
  type CrossoverParts,
  type CrossoverReading,
} from './readCrossover.js';
