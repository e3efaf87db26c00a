import type { NoiseTrait } from '../commissioning/index.js';
import type { BandMargin, Polarity, Verdict } from '../measure/index.js';
import type { Point } from '../geometry/index.js';

/** What the processor held while a sweep was taken. */
export interface MemoryStamp {
  letter: string;
  name: string;
  /** CRC-32 over settings and filters */
  checksum: number;
  hasFilters: boolean;
}

/** Where and with what a sweep was taken, to tell when the plan or the rig has changed since. */
export interface Conditions {
  spot: Point;
  loudspeaker: Point;
  output: number;
  rigName: string;
  temperatureC: number;
}

/** One walk over the spots. Rounds stand beside each other: before and after the drapes went up, empty and full hall. */
export interface Round {
  id: string;
  name: string;
  startedAt: number;
  note: string;
}

/** The floor microphone's part of a sweep. */
export interface FloorPart {
  microphoneId: string;
  calibrationId: string | null;
  traceId: string;
  /** the joined curve as a response, seen through the ear microphone's calibration */
  joinedId: string;
  crossoverHz: number;
  /** what the floor microphone was raised by and made later by, to fit the ear's in the overlap */
  levelDb: number;
  delayS: number;
  /** how far the two still differ in the overlap (RMS) */
  misfitDb: number;
}

/** One sweep as stored; its impulse response lies under `traceId`. Never altered once taken. */
export interface Sweep {
  id: string;
  /** with bass: through the processor's inputs, so that the subwoofers play what the channel sends them */
  stage: 'as found' | 'verified' | 'verified with bass';
  roundId: string;
  spotId: string;
  loudspeakerId: string;
  traceId: string;
  takenAt: number;
  levelDbfs: number;
  microphoneId: string;
  calibrationId: string | null;
  memory: MemoryStamp;
  verdict: Verdict;
  margins: BandMargin[];
  /** seconds from loudspeaker drive to onset, null when nothing arrived */
  arrivalS: number | null;
  distortionDb: number | null;
  /** which way round the loudspeaker moved; null where it cannot be told, or was not kept */
  polarity: Polarity | null;
  /** what stood out of the room's noise ahead of the sweeps at this spot; nothing where nobody listened */
  noise: NoiseTrait[];
  /** false when it is kept but not averaged */
  inAverage: boolean;
  note: string;
  /** null where it was not kept */
  conditions: Conditions | null;
  /** where lows and highs have sunk into the noise and were faded out, seconds after time zero; null where they did not, or it is not known */
  decayEnd: { lowS: number | null; highS: number | null } | null;
  /** dB to add to its level, so that it compares with those of the measuring microphone: another gain, another sensitivity */
  levelOffsetDb: number;
  /** how many takes it is the average of */
  repeats: number;
  /** array with its packed harmonic curves; null where they were not kept */
  harmonicsId: string | null;
  /** what the reference click became at the microphone; null without one */
  referenceId: string | null;
  /** null where one microphone took it */
  floor: FloorPart | null;
  /** whether the microphone lay on the floor by itself: 6 dB are taken off then */
  groundPlane: boolean;
}
