import type { Point } from '@pebble-hall/core/geometry';
import type { RigSession, SessionRequest } from './rigSession';

/** A connector of an interface, counted from 1. */
export interface RigConnector {
  number: number;
  name: string;
}

export interface RigDescription {
  name: string;
  rate: number;
  inputs: RigConnector[];
  outputs: RigConnector[];
  /** what is not as asked and can spoil a measurement, as sentences */
  warnings: string[];
}

/** What a take brought. */
export interface Recording {
  /** one per input asked for, in that order */
  channels: Float32Array[];
  /** how often sound was lost on the way; anything above 0 spoils the take */
  dropouts: number;
  /** those of them that the rig itself lost; the rest were gaps already when the device delivered them */
  missedBlocks: number;
}

/** A microphone on an input (from 1), where it stands and how it points. */
export interface MicrophoneStand {
  input: number;
  position: Point;
  serial: string;
  /** between its axis and the source, degrees */
  incidenceDeg: 0 | 90;
  gainDb: number;
}

export interface PlayRequest {
  /** what is played where; nothing for a recording of silence. All at the rig's rate, full scale = 1 */
  signals: { output: number; samples: Float32Array }[];
  /** inputs to record, in the order wanted */
  inputs: number[];
  lengthFrames: number;
  /** whether a processor in between shall play each signal on the output of its number alone, or as its inputs are fed on; the first by default */
  through?: 'outputs' | 'inputs';
}

export interface PlayOptions {
  signal?: AbortSignal;
  /** share of the take that is over, 0 to 1 */
  onProgress?: (share: number) => void;
  /** told the first input's sound as it comes, and the frame that it begins at */
  onBlock?: (block: Float32Array, fromFrame: number) => void;
}

/**
 * What every audio interface must do for Pebble Hall. Asking for nothing and silent until `open`; `close` lets go of all.
 * Errors are sentences that name the device and say what to do.
 */
export interface AudioRig {
  /** whether what is played is heard in the room; what a simulated rig plays can only be heard through this computer */
  readonly isAudible: boolean;
  /** Tells a rig that models its place where the microphones stand; absent where people carry them there. */
  placeMicrophones?(microphones: MicrophoneStand[]): void;
  open(): Promise<RigDescription>;
  /**
   * Plays and records at the same time, sample-locked: frame 0 of every recording is the moment frame 0 was played, plus
   * one latency shared by all inputs.
   * @throws AbortError when cancelled; nothing sounds any more then
   */
  playAndRecord(request: PlayRequest, options?: PlayOptions): Promise<Recording>;
  /**
   * Hands over blocks of the inputs as they come, until `stop` is called; each call gets one array per input
   * and the frame, on the rig's clock, that they begin at.
   * @param onLost told when the stream ends by itself: a device vanished, the tab was put to sleep
   */
  stream(
    inputs: number[],
    onBlock: (block: Float32Array[], fromFrame: number) => void,
    onLost?: (error: Error) => void,
  ): Promise<{ stop: () => void }>;
  /**
   * Streams inputs and plays a generator at the same time, on one clock, until it is stopped; blocks go from where the sound
   * comes in straight to a port. Only one at a time.
   * @param onLost told when it ends by itself: a device vanished, the tab was put to sleep
   */
  session(request: SessionRequest, onLost: (error: Error) => void): Promise<RigSession>;
  close(): Promise<void>;
}

/** @throws RangeError when a request asks for what the device has not; the sentence names it. */
export function checkRequest(
  name: string,
  { signals, inputs, lengthFrames }: PlayRequest,
  outputs: number,
  available: number,
): void {
  if (!(lengthFrames > 0)) throw new RangeError('The take has no length.');
  for (const input of inputs) {
    if (!(input >= 1 && input <= available)) throw new RangeError(`${name} has no input ${input}.`);
  }
  for (const { output, samples } of signals) {
    if (!(output >= 1 && output <= outputs)) throw new RangeError(`${name} has no output ${output}.`);
    if (samples.some((v) => !(Math.abs(v) <= 1)))
      throw new RangeError('The signal goes beyond full scale; nothing was played.');
  }
}
