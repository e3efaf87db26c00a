/** The way to sound: the port `AudioRig`, its adapters, the processor, and taking a sweep. */
export {
  abortError,
  isAbort,
  type AudioRig,
  type PlayOptions,
  type PlayRequest,
  type Recording,
  type RigDescription,
} from './AudioRig';
export { lookUpMicrophone, type FoundMicrophone } from './calibrationLookup';
export { SimulatedRig } from './simulatedRig';
export { WebAudioRig } from './webAudioRig';
export { askForDevices, listDevices, type ListedDevice, type ListedDevices } from './audioDevices';
export { practiceFaults, setPracticeFaults } from './practiceFaults';
export {
  joinPair,
  playOnly,
  readNoise,
  recordSilence,
  takeRoundTrip,
  takeSweep,
  travelBetween,
  type SweepOptions,
  type SweepSettings,
  type TimeBy,
  type Watched,
} from './takeSweep';
export {
  activeMemory,
  leaveSettings,
  abandonTransfer,
  beginTransfer,
  copyMemory,
  renameMemory,
  sendTransfer,
  ProcessorError,
  readMemory,
  readProcessor,
  recallMemory,
  setBreakAt,
  setOutputs,
  type LoadRequest,
  type MemoryContents,
} from './processorClient';
