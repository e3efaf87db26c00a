/** The way to sound: the port `AudioRig` and its adapters. */
export type {
  AudioRig,
  MicrophoneStand,
  PlayOptions,
  PlayRequest,
  Recording,
  RigDescription,
} from './AudioRig';
export { askForDevices, listDevices, type ListedDevice, type ListedDevices } from './audioDevices';
export {
  noFaults,
  onPracticeFaults,
  practiceFaults,
  ROOM_SOUNDS,
  setPracticeFaults,
  type Calibrator,
  type Faults,
  type RoomSound,
} from './practiceFaults';
export type { RigSession, SessionAnswer, SessionBlock, SessionRequest } from './rigSession';
export { SIMULATED_RIG_NAME, SimulatedRig } from './simulatedRig';
export { playedModels } from './playedModels';
export { WebAudioRig } from './webAudioRig';
