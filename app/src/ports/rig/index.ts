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
export { noFaults, practiceFaults, setPracticeFaults, type Calibrator, type Faults } from './practiceFaults';
export { SIMULATED_RIG_NAME, SimulatedRig } from './simulatedRig';
export { playedModels } from './playedModels';
export { WebAudioRig } from './webAudioRig';
