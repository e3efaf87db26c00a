import type { Point } from '../geometry/index.js';
import type { Averaged, Averaging, BlockLength, GeneratorSignal, LiveMeasurement } from '../live/index.js';
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

/** How live sessions of a project are set up. */
export interface LiveRecord {
  measurements: PlannedMeasurement[];
  blockLength: BlockLength;
  averaging: Averaging;
  levels: 'complex' | 'power';
  average: Averaged;
  /** the measurement whose delay is time zero for all; null for each its own */
  timeReferenceId: string | null;
  generator: GeneratorChoice;
  /** where microphones stand in a session, by their ids; the others at the spots in their order */
  stands: Record<string, Point>;
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
  levels: 'complex' | 'power';
  /** of several measurements; `none` for one of them */
  average: Averaged;
  /** so many blocks counting alike stood behind it */
  blocks: number;
  microphoneId: string | null;
  calibration: string | null;
  /** where the microphone stood; null where nobody knows */
  position: Point | null;
  /** what was played; null for programme from elsewhere */
  generator: GeneratorChoice | null;
  memory: MemoryStamp | null;
  rigName: string;
  temperatureC: number;
}

/** How a kept trace is looked at: nothing of it touches its samples. */
export interface TraceView {
  gainDb: number;
  delayS: number;
  inverted: boolean;
  isShown: boolean;
  /** a name of a trace's colour; null for the next one that is free */
  colour: string | null;
}

/** A trace that was kept: a transfer function with its coherence. */
export interface KeptTrace {
  id: string;
  name: string;
  keptAt: number;
  note: string;
  folder: string;
  tags: string[];
  /** frequency, re, im and coherence one after the other, all as long */
  arrayId: string;
  origin: LiveOrigin;
  view: TraceView;
}

/** A live session of a new project: one measurement against the loopback, or against the generator where there is none. */
export function newLive(loudspeakerIds: string[], loopbackInput: number | null): LiveRecord {
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
      loudspeakerIds: loudspeakerIds.slice(0, 1),
      alternateS: null,
    },
    stands: {},
  };
}
