import type { GeneratorOrder } from '@pebble-hall/core/live';

/** What streams without an end, until it is stopped. */
export interface SessionRequest {
  /** from 1, in the order wanted */
  inputs: number[];
  /** where blocks go: `SessionBlock` comes out of it, each to be answered by `SessionAnswer` */
  port: MessagePort;
}

/** What a session posts to its port, straight from where the sound comes in. */
export interface SessionBlock {
  /** number of its first frame since the session began */
  fromFrame: number;
  frames: number;
  /** the inputs one after the other, then what the generator plays: as much room for each, of which `frames` hold */
  data: Float32Array;
}

/** The emptied array goes back, so that nothing is allocated where sound must not wait. */
export interface SessionAnswer {
  back: Float32Array;
}

/** A session under way. */
export interface RigSession {
  rate: number;
  /**
   * What the generator plays from now on.
   * @param outputs one or two, from 1
   * @throws RangeError for an output that the rig has not
   */
  play(order: GeneratorOrder, outputs: readonly number[]): void;
  /** Tells that something between outputs and inputs was changed on purpose; a rig that models its place asks anew. */
  refresh(): void;
  /** Ends it; nothing sounds and no block comes any more. */
  stop(): void;
}

export const SESSION_FRAMES = 1024;
/** Enough blocks for a listener that is busy for two seconds. */
export const SESSION_BLOCKS = 96;

/** @throws RangeError when a generator is to play where the rig has no output; the sentence names it. */
export function checkOutputs(name: string, outputs: readonly number[], available: number): void {
  for (const output of outputs)
    if (!(output >= 1 && output <= available)) throw new RangeError(`${name} has no output ${output}.`);
  if (outputs.length > 2) throw new RangeError('The generator plays on two outputs at the most.');
}
