/** The processor stand-in: its settings, its memories, its response. */
export {
  memoryChecksum,
  skerryPath,
  packFilters,
  settingsAfterLoad,
  SKERRY,
  unpackFilters,
  type Memory,
} from './settings.js';
export {
  houseMemory,
  LEFT_OVER,
  plainMemory,
  Processor,
  ProcessorRefusal,
  UNIT_HEADER,
} from './processor.js';
