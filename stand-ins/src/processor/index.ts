/** The processor stand-in: its settings, its memories, its response. */
export {
  MEMORY_LETTERS,
  memoryChecksum,
  outputSpectrum,
  packFilters,
  plainOutput,
  SKERRY,
  unpackFilters,
  type CrossoverFilter,
  type Memory,
  type MemoryLetter,
  type OutputSettings,
} from './settings.js';
export {
  houseMemory,
  LEFT_OVER,
  Processor,
  ProcessorRefusal,
  type MemorySummary,
  type OutputChange,
  type ProcessorState,
} from './processor.js';
