/** Runs of the room model: who sends, what is read where it is heard, and how far that can be trusted. */
export {
  MOST_RECEIVER_SECONDS,
  RAYS_PER_GROUP,
  ROWS_PER_RECEIVER,
  type RoomRun,
  type RunFace,
  type RunRays,
  type RunReceiver,
  type RunSource,
} from './run.js';
export { rayGroupOf, raysOfGroup } from './keptRays.js';
export {
  partsOf,
  sentBy,
  settingOfRun,
  traceGroup,
  tracedReceiver,
  wholeGroups,
  type Sent,
} from './traceRun.js';
export { INSTRUMENTS, instrumentEmission, type InstrumentName } from './instruments.js';
export { talkerEmission, voiceLevels, VOICES, type Voice } from './talker.js';
export {
  earResponses,
  pressureResponse,
  type PressureRequest,
  type PressureResponse,
} from './pressureResponse.js';
export { ambisonicsOf, EAR_PLACES, earsOf, earsOfHearer, HEARERS, OPEN_EAR, type Hearer } from './head.js';
export type { Ear } from './ear.js';
export {
  gridOfRun,
  lowsAt,
  lowsOctaves,
  lowsOf,
  lowsOfRunSteps,
  lowsPlan,
  lowsReachHz,
  lowsSteps,
  type LowsHeard,
  type LowsInto,
  type LowsPlan,
} from './lows.js';
export {
  playedImpulse,
  playedRays,
  sentTogether,
  type PlayedBox,
  type PlayedRays,
  type PlayedRoom,
} from './playedImpulse.js';
export { lowsPlayed, playedWaves, wavesFrom, type PlayedPoint, type PlayedWaves } from './playedWaves.js';
export { energyByWaves, octavesByWaves, withRows } from './waveEnergy.js';
export { directLevels } from './directSound.js';
export { reflectionDensity, type ReflectionDensity } from './reflectionDensity.js';
export {
  heardInRun,
  readReceiver,
  speedIn,
  type ReceiverReading,
  type RunPart,
  type RunSetting,
} from './readReceiver.js';
export {
  ACCURACIES,
  FIRST_GROUPS,
  suggestRun,
  timesTheRays,
  type Accuracy,
  type SuggestedRun,
} from './suggestRun.js';
export { findFlutter, type Flutter } from './flutter.js';
export { isPackedHead, packedHead } from './packedHead.js';
export { earsOfHead } from './measuredHead.js';
export { curvedSurfaces, findFocus, type Focus } from './focus.js';
export { echoMaker, type EchoMaker } from './echoMaker.js';
