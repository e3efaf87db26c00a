/** The processor: the port, and its adapters. */
export {
  activeMemory,
  ProcessorError,
  type ProcessorCapabilities,
  type ProcessorPort,
  type ProcessorPractice,
} from './ProcessorPort';
export { FilesOnlyProcessor, WITH, WITHOUT } from './filesOnlyProcessor';
export { StandInProcessor } from './standInProcessor';
