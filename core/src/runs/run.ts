import type { Point } from '../geometry/index.js';
import type { Air, PerOctave } from '../room/index.js';
import type { InstrumentName } from './instruments.js';
import type { Voice } from './talker.js';

/** Who sends in a run, and from where. */
export type RunSource = { id: string; name: string; position: Point } & (
  | { kind: 'omnidirectional' }
  /** degrees, counter-clockwise from x, and upwards */
  | { kind: 'talker'; azimuthDeg: number; elevationDeg: number; voice: Voice }
  /** an instrument that plays along an azimuth, degrees; it has no level of its own */
  | { kind: 'instrument'; azimuthDeg: number; instrument: InstrumentName }
  /**
   * a channel of the plan, with speech as its signal, so far below full scale; `setting` tells its setting of then from others
   */
  | { kind: 'loudspeaker'; loudspeakerId: string; signalDbfs: number; setting: string }
);

/** Where a run is heard. */
export interface RunReceiver {
  id: string;
  name: string;
  position: Point;
  /** where its nose points, degrees counter-clockwise from x */
  azimuthDeg: number;
}

/** A face as it was when the run was made. */
export interface RunFace {
  name: string;
  corners: Point[];
  absorption: PerOctave;
  scattering: PerOctave;
}

/** A run of the room model: all that it is made from. What its rays bring is kept beside the project, group by group. */
export interface RoomRun {
  id: string;
  name: string;
  madeAt: number;
  faces: RunFace[];
  /** cubic metres */
  volume: number;
  air: Air;
  sources: RunSource[];
  receivers: RunReceiver[];
  /** order up to which ways are followed as from mirrors */
  mirrored: number;
  /** of a response after its direct sound */
  lengthS: number;
  raysPerGroup: number;
  /** so many are wanted; they know nothing of each other, so that errors can be told */
  groups: number;
  seed: number;
  /** of the place, dB SPL per octave; null where nobody said */
  noiseLevelsDb: PerOctave | null;
  /** whose cores trace it: either way the same seed gives the same numbers */
  tracedBy: 'browser' | 'server';
  /** stopped by hand; what is there stays */
  isHeld: boolean;
}

/** What a group of rays from one source brought, as it is kept. */
export interface RunRays {
  runId: string;
  /** index among the run's sources */
  source: number;
  group: number;
  rays: number;
  bins: number;
  /** rows of bins: of each receiver 8 octaves of energy; of each 8 of what is lateral; of each the number of contributions */
  data: Float32Array;
  /** where it comes from: of each receiver, stretch and sector, see `RayGroup`; null in runs of before this was kept */
  directions: Float32Array | null;
  /** what the source sends, see `Emission`; null for one that sends everywhere alike */
  emission: Float32Array | null;
  powerDb: number[];
  delayS: number;
  /** per octave */
  sent: number[];
  absorbed: number[];
  escaped: number[];
  cut: number[];
  leaks: number;
  leakAt: Point | null;
}

/** Rows of bins in the data of a group, of each receiver: energy, lateral energy, contributions. */
export const ROWS_PER_RECEIVER = 17;

/** A run holds no more receiver-seconds than this: the data of a group would be too large to be kept. */
export const MOST_RECEIVER_SECONDS = 2000;

/** Rays of a group, as a project can hold them. */
export const RAYS_PER_GROUP = { least: 100, most: 1_000_000 };
