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
}

export interface PlayRequest {
  /** what is played where; nothing for a recording of silence. All at the rig's rate, full scale = 1 */
  signals: { output: number; samples: Float32Array }[];
  /** inputs to record, in the order wanted */
  inputs: number[];
  lengthFrames: number;
}

export interface PlayOptions {
  signal?: AbortSignal;
  /** share of the take that is over, 0 to 1 */
  onProgress?: (share: number) => void;
}

/**
 * What every audio interface must do for Pebble Hall. Asking for nothing and silent until `open`; `close` lets go of all.
 * Errors are sentences that name the device and say what to do.
 */
export interface AudioRig {
  open(): Promise<RigDescription>;
  /**
   * Plays and records at the same time, sample-locked: frame 0 of every recording is the moment frame 0 was played, plus
   * one latency shared by all inputs.
   * @throws AbortError when cancelled; nothing sounds any more then
   */
  playAndRecord(request: PlayRequest, options?: PlayOptions): Promise<Float32Array[]>;
  /** Hands over blocks of the inputs as they come, until `stop` is called; each call gets one array per input. */
  stream(inputs: number[], onBlock: (block: Float32Array[]) => void): Promise<{ stop: () => void }>;
  close(): Promise<void>;
}

/** The error that a cancelled take ends with. */
export const abortError = (): DOMException => new DOMException('Cancelled.', 'AbortError');
export const isAbort = (error: unknown): boolean =>
  error instanceof DOMException && error.name === 'AbortError';
