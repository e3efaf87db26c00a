import type { Span, TargetHandle } from '../correct/index.js';
import type { BandMargin, Verdict } from '../measure/index.js';

/** Version of the project's shape; raise it with every change and add a migration. */
export const PROJECT_VERSION = 1;

/** Metres from the corner of the place at the origin: x, y along the floor, z up. */
export interface Position {
  x: number;
  y: number;
  z: number;
}

export interface Loudspeaker {
  id: string;
  name: string;
  model: string;
  role: 'full range' | 'subwoofer';
  /** output of interface and processor that feeds it, from 1 */
  output: number;
  position: Position;
  /** azimuth in which it points, degrees counter-clockwise from x */
  aimDeg: number;
  /** false when the engineer said that nothing is connected */
  fitted: boolean;
}

export interface Seat {
  id: string;
  name: string;
  position: Position;
}

export interface Furniture {
  kind: 'sofa' | 'chair' | 'window' | 'rug';
  /** corner nearest the origin, and extent, metres */
  x: number;
  y: number;
  width: number;
  depth: number;
}

/** A microphone position. The first of a project is the home spot. */
export interface Spot {
  id: string;
  name: string;
  position: Position;
  /** whether Correct averages it; a spot left out can still judge the result */
  inAverage: boolean;
}

export interface Place {
  name: string;
  /** metres along x, y, z */
  size: Position;
  temperatureC: number;
  seats: Seat[];
  furniture: Furniture[];
  loudspeakers: Loudspeaker[];
  spots: Spot[];
}

/** What a microphone reads over the truth. */
export interface Calibration {
  id: string;
  name: string;
  serial: string | null;
  frequency: number[];
  levelDb: number[];
}

export interface NoiseReading {
  takenAt: number;
  bands: { centre: number; noiseDb: number }[];
}

/** Outcome of the level check of one channel. */
export interface LevelCheck {
  takenAt: number;
  levelDbfs: number;
  verdict: Verdict;
  margins: BandMargin[];
}

export interface RigSettings {
  kind: 'simulated';
  /** whether the stand-in takes as long as sound does */
  pace: 'quick' | 'real time';
  microphone: string;
  calibrationId: string | null;
  levelDbfs: number;
  sweepS: number;
  noise: NoiseReading | null;
  checks: Record<string, LevelCheck>;
}

/** What the processor held while a sweep was taken. */
export interface MemoryStamp {
  letter: string;
  name: string;
  /** CRC-32 over settings and filters */
  checksum: number;
  hasFilters: boolean;
}

/** One sweep as stored; its impulse response lies under `traceId`. Never altered once taken. */
export interface Sweep {
  id: string;
  stage: 'as found' | 'verified';
  spotId: string;
  loudspeakerId: string;
  traceId: string;
  takenAt: number;
  levelDbfs: number;
  calibrationId: string | null;
  memory: MemoryStamp;
  verdict: Verdict;
  margins: BandMargin[];
  /** seconds from loudspeaker drive to onset, null when nothing arrived */
  arrivalS: number | null;
  distortionDb: number | null;
}

export interface Correction {
  handles: TargetHandle[];
  strength: number;
  maxBoostDb: number;
  maxCutDb: number;
  /** per loudspeaker; absent where the span is found from its own band */
  spans: Record<string, Span>;
  /** per loudspeaker, dB added to the shape of the handles; absent where the target places itself */
  targetLevels: Record<string, number>;
}

/** One load of a memory: which filter went to which loudspeaker, kept so that predictions stay true to what was loaded. */
export interface MemoryLoad {
  id: string;
  letter: string;
  name: string;
  loadedAt: number;
  checksum: number;
  /** filter array id per loudspeaker */
  filters: Record<string, string>;
  /** span per loudspeaker at the time */
  spans: Record<string, Span>;
  /** what the design rested on, to tell when it has changed since */
  designKey: string;
}

export interface Project {
  version: typeof PROJECT_VERSION;
  id: string;
  name: string;
  place: Place;
  calibrations: Record<string, Calibration>;
  rig: RigSettings;
  sweeps: Sweep[];
  correction: Correction;
  loads: MemoryLoad[];
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
