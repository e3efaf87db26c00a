/** The project: its shape, its checks, its file. */
export {
  PROJECT_VERSION,
  type Calibration,
  type Correction,
  type DeviceChoice,
  type Family,
  type FloorAndEar,
  type FloorPart,
  type Furniture,
  type KnownDistance,
  type LevelCalibration,
  type LevelCheck,
  type Loudspeaker,
  type MemoryLoad,
  type MemoryStamp,
  type Microphone,
  type NoiseReading,
  type Place,
  type Pointing,
  type Position,
  type ProcessorBefore,
  type Project,
  type ProjectArray,
  type RigSettings,
  type Round,
  type RoundTrip,
  type Seat,
  type Spot,
  type Sweep,
  type TakenWith,
  type Timing,
} from './types.js';
export { migrateProject } from './migrate.js';
export { familiesOf, proposeFamilies, withMember } from './families.js';
export { arraysOf, checkProject } from './schema.js';
export { readProjectFile, writeProjectFile } from './projectFile.js';
