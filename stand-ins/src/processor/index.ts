/** The processor stand-in: its settings, its memories, its response. */
export {
  MEMORY_LETTERS,
  memoryChecksum,
  outputSpectrum,
  packFilters,
  settingsAfterLoad,
  SKERRY,
  unpackFilters,
  type Memory,
  type MemoryLetter,
} from './settings.js';
export { plainOutput, type OutputSettings } from '@pebble-hall/core/processing';
export {
  houseMemory,
  LEFT_OVER,
  Processor,
  ProcessorRefusal,
  type MemorySummary,
  type OutputChange,
  type ProcessorState,
  type TransferState,
} from './processor.js';
