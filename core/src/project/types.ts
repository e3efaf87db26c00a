import type { ProcessorProfile } from '../processing/index.js';
import type { Family, Place } from './place.js';
import type { Calibration, RigSettings } from './rig.js';
import type { Round, Sweep } from './sweeps.js';
import type { Variant } from './correction.js';
import type { MemoryLoad, PendingLoad } from './loads.js';
import type { KeptTrace, SweepLook } from './kept.js';
import type { Reading } from './readings.js';
import type { KeptLook } from './libraryViews.js';
import type { LiveRecord } from './live.js';
import type { AlignStep } from './align.js';
import type { RoomRun } from '../runs/index.js';
import type { BlindTrial, Headphones, ListeningChain } from './listening.js';

export type * from './place.js';
export type * from './rig.js';
export type * from './sweeps.js';
export type * from './correction.js';
export type * from './loads.js';
export type * from './listening.js';
export type * from './kept.js';
export type * from './electronics.js';
export type * from './libraryViews.js';
export type * from './readings.js';
export type * from './live.js';
export type * from './align.js';

/** Version of the project's shape; raise it with every change and add a migration. */
export const PROJECT_VERSION = 16;

/** The processor in the chain: the stand-in, which tells itself what it can; or one that is reached by files only. */
export type ProcessorChoice = {
  /** which of the simulated processors is the place's own */
  unit: string;
} & (
  | { adapter: 'stand-in' }
  /** the load that the engineer says is in it by now, by its id; null for none */
  | { adapter: 'files only'; profile: ProcessorProfile; inPlaceId: string | null }
);

/** The simulated processor of the Net Loft, which somebody has set up already. */
export const HOUSE_UNIT = 'house';

export interface Project {
  version: typeof PROJECT_VERSION;
  id: string;
  name: string;
  place: Place;
  processor: ProcessorChoice;
  calibrations: Record<string, Calibration>;
  rig: RigSettings;
  /** oldest first; never empty */
  rounds: Round[];
  /** the one that is under way */
  roundId: string;
  /** as arranged by hand; null while those that are proposed hold */
  families: Family[] | null;
  sweeps: Sweep[];
  /** never empty */
  variants: Variant[];
  /** the one that is worked on */
  variantId: string;
  /** oldest first */
  loads: MemoryLoad[];
  pendingLoad: PendingLoad | null;
  trials: BlindTrial[];
  chains: ListeningChain[];
  headphones: Headphones[];
  /** the chain that is listened through; null for none */
  chainId: string | null;
  live: LiveRecord;
  /** the library: traces that were kept, imported or computed, oldest first */
  kept: KeptTrace[];
  /** how sweeps of the walk are looked at in the library, by their ids; those that are seen as they are have none */
  sweepLooks: Record<string, SweepLook>;
  /** shapes that are read from traces of the library, oldest first */
  readings: Reading[];
  /** ways to look at the library, oldest first */
  libraryViews: KeptLook[];
  /** sources that are brought together, in working order */
  alignSteps: AlignStep[];
  /** runs of the room model, oldest first */
  roomRuns: RoomRun[];
}

/** A file of somebody else's that a project refers to, as it came. */
export interface EnclosedFile {
  id: string;
  /** with its ending */
  name: string;
  /** MIME type; empty where it has none */
  type: string;
  bytes: Uint8Array;
}

/** Samples that a project refers to: an impulse response or a filter. */
export interface ProjectArray {
  id: string;
  kind: 'trace' | 'filter';
  rate: number;
  /** index of time zero */
  zero: number;
  samples: Float32Array;
}
