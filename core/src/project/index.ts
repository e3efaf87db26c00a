/** The project: its shape, its checks, its file. */
export {
  PROJECT_VERSION,
  type Calibration,
  type Correction,
  type Furniture,
  type LevelCheck,
  type Loudspeaker,
  type MemoryLoad,
  type MemoryStamp,
  type NoiseReading,
  type Place,
  type Position,
  type Project,
  type ProjectArray,
  type RigSettings,
  type Seat,
  type Spot,
  type Sweep,
} from './types.js';
export { arraysOf, checkProject } from './schema.js';
export { readProjectFile, writeProjectFile } from './projectFile.js';
