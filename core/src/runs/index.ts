/** Runs of the room model: who sends, what is read where it is heard, and how far that can be trusted. */
export { talkerEmission, voiceLevels, VOICES, type Voice } from './talker.js';
export { pressureResponse, type PressureRequest, type PressureResponse } from './pressureResponse.js';
export { reflectionDensity, type ReflectionDensity } from './reflectionDensity.js';
export {
  heardInRun,
  readReceiver,
  speedIn,
  type ReceiverReading,
  type RunPart,
  type RunSetting,
} from './readReceiver.js';
