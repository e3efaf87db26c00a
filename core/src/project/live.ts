import type { Point } from '../geometry/index.js';
import type {
  Averaged,
  Averaging,
  BlockLength,
  BlockWeighting,
  GeneratorSignal,
  LiveMeasurement,
  SpectrumBands,
} from '../live/index.js';
import type { Weighting } from '../level/index.js';
import { freeOutput } from './freeOutput.js';
import { newBench, type ElectronicsBench } from './electronics.js';
import type { MemoryStamp } from './sweeps.js';

/** Which file corrects what is measured: that of the microphone on the input, none, or one by its id. */
export type LiveCalibration = { by: 'microphone' } | { by: 'nothing' } | { by: 'file'; id: string };

/** A measurement of a session as it is set up. */
export interface PlannedMeasurement extends Omit<LiveMeasurement, 'correctionDb'> {
  calibration: LiveCalibration;
}

/** What the generator is set to; whether it plays is nobody's to store. */
export interface GeneratorChoice {
  /** a file is chosen anew in each session */
  signal: Exclude<GeneratorSignal, { kind: 'file' }> | { kind: 'file' };
  /** RMS, a sine at full scale has -3 dB */
  levelDbfs: number;
  /** one or two, ids */
  loudspeakerIds: string[];
  /** seconds on the first channel, then as long on the second; null for both at once */
  alternateS: number | null;
}

/** How spectra are made in a session. */
export interface SpectrumChoice {
  bands: SpectrumBands;
  weighting: Weighting;
  /** averaged over the last seconds; null for all since it was restarted */
  seconds: number | null;
  /** the kept spectrum that is the room's own noise; null for none */
  noiseId: string | null;
}

/** How live sessions of a project are set up. */
export interface LiveRecord {
  measurements: PlannedMeasurement[];
  blockLength: BlockLength;
  averaging: Averaging;
  levels: BlockWeighting;
  average: Averaged;
  /** the measurement whose delay is time zero for all; null for each its own */
  timeReferenceId: string | null;
  generator: GeneratorChoice;
  spectrum: SpectrumChoice;
  /** where microphones stand in a session, by their ids; the others at the spots in their order */
  stands: Record<string, Point>;
  electronics: ElectronicsBench;
}

/** Of what a kept trace was made, as far as it is known. */
export interface LiveOrigin {
  by: 'live';
  measurement: string;
  input: number;
  reference: 'generator' | number;
  /** of a delay, seconds, that was taken off */
  delayS: number;
  gainDb: number;
  inverted: boolean;
  blockLength: BlockLength;
  averaging: Averaging;
  levels: BlockWeighting;
  /** of several measurements; `none` for one of them */
  average: Averaged;
  /** of a microphone on the floor that was joined to it: its input, and how it was fitted; null for one microphone */
  floor: { input: number; crossoverHz: number; levelDb: number; delayS: number } | null;
  /** so many blocks counting alike stood behind it */
  blocks: number;
  microphoneId: string | null;
  calibration: string | null;
  /** where the microphone stood; null where nobody knows */
  position: Point | null;
  /** what was played; null for programme from elsewhere */
  generator: GeneratorChoice | null;
  /** of a device on the bench: what it is called, and how its knobs stood; null for a microphone */
  device: { name: string; knobs: Record<string, number> } | null;
  /** of a spectrum: how it was made, and what was added to it for sound pressure levels, where that was known */
  spectrum: (Omit<SpectrumChoice, 'noiseId'> & { splOffsetDb: number | null }) | null;
  memory: MemoryStamp | null;
  rigName: string;
  temperatureC: number;
}

/** A live session of a new project: one measurement against the loopback, or against the generator where there is none. */
export function newLive(
  loudspeakers: readonly { id: string; output: number }[],
  loopbackInput: number | null,
): LiveRecord {
  return {
    measurements: [
      {
        id: 'measurement-1',
        name: 'Microphone',
        input: 1,
        reference: loopbackInput ?? 'generator',
        delayS: 0,
        gainDb: 0,
        inverted: false,
        isTracked: false,
        calibration: { by: 'microphone' },
      },
    ],
    blockLength: 'merged',
    averaging: { kind: 'exponential', seconds: 2 },
    levels: 'complex',
    average: 'none',
    timeReferenceId: null,
    generator: {
      signal: { kind: 'pink', period: 65_536 },
      levelDbfs: -40,
      loudspeakerIds: loudspeakers.slice(0, 1).map((l) => l.id),
      alternateS: null,
    },
    spectrum: { bands: 3, weighting: 'Z', seconds: 4, noiseId: null },
    stands: {},
    electronics: newBench(freeOutput({ loudspeakers }), loopbackInput),
  };
}
