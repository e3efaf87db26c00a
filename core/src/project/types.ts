import type { FilterChoice, Section, Span, StrengthPoint, Target } from '../correct/index.js';
import type { NoiseTrait } from '../check/index.js';
import type { BassFeed, OutputSettings } from '../output/index.js';
import type { CrossoverFilter, SubSetting } from '../together/index.js';
import type { BandMargin, Verdict } from '../measure/index.js';

/** Version of the project's shape; raise it with every change and add a migration. */
export const PROJECT_VERSION = 6;

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
  /** how much it counts in the average, against 1 */
  weight: number;
  /** at ear height, or with the capsule on the floor, where pressure is doubled */
  surface: 'ear' | 'ground plane';
}

/** Loudspeakers that are looked at and corrected alike. */
export interface Family {
  id: string;
  name: string;
  loudspeakerIds: string[];
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

/** What the processor held while a sweep was taken. */
export interface MemoryStamp {
  letter: string;
  name: string;
  /** CRC-32 over settings and filters */
  checksum: number;
  hasFilters: boolean;
}

/** Where and with what a sweep was taken, to tell when the plan or the rig has changed since. */
export interface TakenWith {
  spot: Position;
  loudspeaker: Position;
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
  stage: 'as found' | 'verified';
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
  /** false when it is kept but not averaged */
  inAverage: boolean;
  note: string;
  /** null where it was not kept */
  takenWith: TakenWith | null;
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

/** Trim and delay of a channel on top of what the processor did, as set or taken over. */
export interface Alignment {
  trimDb: number;
  delayMs: number;
  inverted: boolean;
}

/** Crossovers of a channel in place of those that the processor had; null for none. */
export interface Crossovers {
  highPass: CrossoverFilter | null;
  /** of a full-range channel: of its bass on the way to the subwoofers; of a subwoofer: its own */
  lowPass: CrossoverFilter | null;
}

export interface Correction {
  /** of all families that have none of their own */
  target: Target;
  /** by family id */
  familyTargets: Record<string, Target>;
  strength: number;
  strengthPoints: StrengthPoint[];
  maxBoostDb: number;
  maxCutDb: number;
  /** per loudspeaker; absent where the span is found from its own band */
  spans: Record<string, Span>;
  /** per loudspeaker, dB added to the shape of the target; absent where the target places itself */
  targetLevels: Record<string, number>;
  filter: FilterChoice;
  /** per loudspeaker: sections by hand; absent where they are fitted */
  sections: Record<string, Section[]>;
  /** per loudspeaker; absent where level and delay stay as the processor had them */
  alignment: Record<string, Alignment>;
  /** per subwoofer, when they work together; empty when they do not */
  subs: Record<string, SubSetting>;
  /** per loudspeaker; absent where the processor's own stay */
  crossovers: Record<string, Crossovers>;
  /** how the subwoofers alone play the low-frequency channel; null where there is none */
  lowChannel: BassFeed | null;
  /** whether all channels are lowered so that no tone can go beyond full scale */
  headroomGuard: boolean;
}

/** A correction with a name. Any number stand beside each other. */
export interface Variant {
  id: string;
  name: string;
  note: string;
  madeAt: number;
  correction: Correction;
  /** what had been measured when it was last looked at: round, and a key that changes with its sweeps */
  restsOn: { roundId: string; key: string } | null;
}

/** One load of a memory: what went to which output, kept so that predictions stay true to what was loaded. */
export interface MemoryLoad {
  id: string;
  letter: string;
  name: string;
  loadedAt: number;
  checksum: number;
  /** filter array id per loudspeaker that has a FIR */
  filters: Record<string, string>;
  /** per loudspeaker at the time: every one that was corrected */
  spans: Record<string, Span>;
  /** settings of all outputs as they are meant to be, and as they were while the room was measured; null where they were not kept */
  outputs: OutputSettings[] | null;
  before: OutputSettings[] | null;
  /** what the design rested on, to tell when it has changed since */
  designKey: string;
  /** the variant; null where there were none yet */
  variantId: string | null;
  variantName: string;
}

/** A load that has been begun and not completed: it can be gone on with. */
export interface PendingLoad {
  load: MemoryLoad;
  transferId: string;
}

/** What one candidate of a blind trial was. */
export interface TrialCandidate {
  /** 'as found', or the id of a variant */
  source: string;
  name: string;
}

/** A blind comparison as it went. */
export interface BlindTrial {
  id: string;
  kind: 'preference' | 'same or different';
  startedAt: number;
  spotName: string;
  material: string;
  candidates: TrialCandidate[];
  /** candidate chosen in each turn (preference), or whether the answer was right (1) or not (0) */
  answers: number[];
  matched: boolean;
}

/** Output, channels and correction to listen through, under a name. */
export interface ListeningChain {
  id: string;
  name: string;
  /** 'as found', or the id of a variant */
  source: string;
  /** loudspeakers that play left and right; equal for one */
  leftId: string;
  rightId: string;
  /** share of the correction, 0 to 1 */
  strength: number;
  style: FilterChoice['style'];
  trimDb: number;
  /** where it sounds */
  through: 'room' | 'output' | 'headphones';
  /** the headphones that it is for; null otherwise */
  headphonesId: string | null;
  outputName: string;
}

/** Headphones as an output: their response on an ear, and what they shall sound like. */
export interface Headphones {
  id: string;
  name: string;
  frequency: number[];
  levelDb: number[];
  targetName: string;
  target: Target;
  strength: number;
}

export interface Project {
  version: typeof PROJECT_VERSION;
  id: string;
  name: string;
  place: Place;
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
