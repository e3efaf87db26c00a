/** The processor: the port, and its adapters. */
export {
  activeMemory,
  ProcessorError,
  type ProcessorCapabilities,
  type ProcessorPort,
  type ProcessorPractice,
} from './ProcessorPort';
export { FilesOnlyProcessor } from './filesOnlyProcessor';
export { StandInProcessor } from './standInProcessor';
