/** The way to sound: the port `AudioRig`, its adapters, the processor, and taking a sweep. */
export {
  abortError,
  isAbort,
  type AudioRig,
  type PlayOptions,
  type PlayRequest,
  type RigDescription,
} from './AudioRig';
export { SimulatedRig } from './simulatedRig';
export { practiceFaults, setPracticeFaults } from './practiceFaults';
export { recordSilence, takeSweep, type SweepSettings } from './takeSweep';
export {
  activeMemory,
  loadMemory,
  ProcessorError,
  readMemory,
  readProcessor,
  recallMemory,
  setBreakAt,
  type LoadRequest,
  type MemoryContents,
} from './processorClient';
