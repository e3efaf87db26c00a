import type { NoiseTrait } from '../commissioning/index.js';
import type { BandMargin, Verdict } from '../measure/index.js';

/** What a microphone reads over the truth. */
export interface Calibration {
  id: string;
  name: string;
  serial: string | null;
  frequency: number[];
  levelDb: number[];
  /** angle of incidence that the file is for, degrees; null when it does not say */
  incidenceDeg: number | null;
  /** dB re 1 V/Pa; null when the file does not say */
  sensitivityDb: number | null;
}

/** How a microphone points: its axis at the source (0 degrees), upright (90), or lying on the floor, its axis at the source. */
export type Pointing = 'at the source' | 'upright' | 'on the floor';

/** What full scale is in sound pressure, found with a level calibrator. */
export interface LevelCalibration {
  takenAt: number;
  nominalDb: 94 | 114;
  /** dB re full scale (RMS 1) at that level */
  readDb: number;
  /** what the input's gain was then */
  gainDb: number;
  /** the interface it was taken through */
  rigName: string;
  /** the other level of the calibrator against this one: how much too high it read, dB; null when not checked */
  linearity: { nominalDb: 94 | 114; offDb: number } | null;
  /** against the calibration before, at the same gain, dB; null for the first */
  driftDb: number | null;
}

export interface Microphone {
  id: string;
  make: string;
  serial: string;
  pointing: Pointing;
  /** input that it is on, from 1 */
  input: number;
  /** gain of that input as it is set on the interface, dB */
  gainDb: number;
  /** its files, by id in the project's calibrations */
  calibrationIds: string[];
  /** the file in use */
  calibrationId: string | null;
  /** newest last */
  levels: LevelCalibration[];
}

export interface NoiseReading {
  takenAt: number;
  bands: { centre: number; noiseDb: number }[];
  /** what stands out of it */
  traits: NoiseTrait[];
}

/** Outcome of the level check of one channel. */
export interface LevelCheck {
  takenAt: number;
  levelDbfs: number;
  verdict: Verdict;
  margins: BandMargin[];
  /** arrival of the minimum-phase equivalent, seconds from drive; null when nothing arrived */
  arrivalS: number | null;
  reversed: boolean | null;
  /** how much better that polarity fits than the other; below 1.1 nothing can be said */
  certainty: number | null;
  /** -Infinity when nothing was found */
  distortionDb: number;
  /** the processor's delay at the time, seconds; 0 where it could not be read */
  delayS: number;
  /** impulse response, for looking */
  traceId: string | null;
}

/** Audio devices of this machine, as chosen; names are kept to say which one is missing. */
export interface DeviceChoice {
  inputId: string;
  inputName: string;
  outputId: string;
  outputName: string;
  rate: number;
  inputs: number;
  outputs: number;
  /** whether the input is let go of after every take, for other programs */
  releases: boolean;
}

/** Output straight to input: what the interface itself does. */
export interface RoundTrip {
  takenAt: number;
  rigName: string;
  output: number;
  input: number;
  latencyS: number;
  traceId: string;
  /** whether it is divided out of measurements */
  divideOut: boolean;
}

/** How time zero is known: by the loopback, by a click from a loudspeaker, or by the latency of an earlier round trip. */
export type Timing = 'loopback' | 'click' | 'round trip';

/** A distance between two loudspeakers, or a loudspeaker and a spot; ids. */
export interface KnownDistance {
  a: string;
  b: string;
  /** by tape or laser */
  typedM: number | null;
  /** by sound */
  heardM: number | null;
  /** set by hand over both */
  adjustedM: number | null;
}

/** What the processor did before measuring, kept so that it can be put back. */
export interface ProcessorBefore {
  takenAt: number;
  letter: string;
  outputs: { trimDb: number; delayMs: number; inverted: boolean; muted: boolean }[];
}

/** A microphone at ear height and one on the floor below it, which make one curve together. */
export interface FloorAndEar {
  earId: string;
  floorId: string;
  /** below it the floor microphone counts, above it the one at the ear */
  crossoverHz: number;
}

export interface RigSettings {
  kind: 'simulated' | 'web audio';
  /** whether the stand-in takes as long as sound does */
  pace: 'quick' | 'real time';
  device: DeviceChoice | null;
  microphones: Microphone[];
  /** the one that measures */
  microphoneId: string;
  /** others that walk along, each at a spot of its own; ids */
  alongIds: string[];
  pairs: FloorAndEar[];
  /** sweeps of one channel at one spot that are averaged */
  repeats: number;
  /** loudspeaker that ends each sweep with a click, to tell whether the microphone was moved; null for none */
  referenceFrom: string | null;
  /** input with the loopback, from 1; null when there is none */
  loopbackInput: number | null;
  timing: Timing;
  /** loudspeaker that gives the click */
  clickFrom: string | null;
  roundTrip: RoundTrip | null;
  distances: KnownDistance[];
  /** impulse responses for distances: place (loudspeaker that the microphone was close to, or spot), then loudspeaker */
  heardTraces: Record<string, Record<string, string>>;
  processorBefore: ProcessorBefore | null;
  levelDbfs: number;
  sweepS: number;
  noise: NoiseReading | null;
  checks: Record<string, LevelCheck>;
}
