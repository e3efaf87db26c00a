/** Several sources together: level and delay, subwoofers over all seats, crossovers, ways to bring any two or more of them together, and whether it came true. */
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
export { lateS, levelsApart, lossDb, readPair, type NoPair, type PairReading } from './pairReading.js';
export { asSet, together, type SourceSetting } from './sourceSetting.js';
export { gainOntoTarget, readMeeting, type Meeting } from './levelsMeet.js';
export {
  suggestAlignments,
  type Suggestion,
  type SuggestedFor,
  type SuggestRequest,
} from './suggestAlignments.js';
export { provenSum, type ProvenSum } from './provenSum.js';
export {
  findJoint,
  jointEfficiency,
  type JointAlignment,
  type JointPoint,
  type JointSetting,
} from './findJoint.js';
export { PhaseTables, type AlignPoint } from './phaseTables.js';
export {
  alignmentAt,
  findAlignments,
  type AlignAim,
  type Alignment,
  type AlignRequest,
} from './findAlignment.js';
export {
  delayForOffset,
  LEADS_DB,
  LEADS_S,
  louderPerOctave,
  notLed,
  OCTAVES,
  type HeardTwo,
  type NotLed,
} from './precedence.js';
export { suggestCrossovers, type CrossoverRequest, type CrossoverSuggestion } from './suggestCrossovers.js';
export { playedAs } from './playedAs.js';
export { impulseTogether, laterBy } from './impulseTogether.js';
export {
  heardFirst,
  proposeVoiceFirst,
  VOICE_BOUND,
  voiceBoundDb,
  type VoiceAtSeat,
  type VoiceAtSeats,
  type VoiceHelp,
  type VoiceWish,
} from './voiceFirst.js';
