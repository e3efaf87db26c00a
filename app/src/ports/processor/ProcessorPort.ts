import type {
  LoadRequest,
  MemoryContents,
  MemorySummary,
  OutputChange,
  ProcessorProfile,
  ProcessorState,
} from '@pebble-hall/core/processing';

/** The processor refused or could not be reached; the message is for the user. */
export class ProcessorError extends Error {
  override name = 'ProcessorError';
}

/** What a processor can be asked for beyond its memories. */
export interface ProcessorCapabilities {
  /** has memories that can be read and written from here; otherwise what is designed goes by files */
  memories: boolean;
  /** can be told to feed its inputs on as it does in use, so that a channel can be measured with its bass */
  playsThroughInputs: boolean;
  /** can be told to misbehave, to practise with */
  practice: ProcessorPractice | null;
}

export interface ProcessorPractice {
  /** the link breaks once this share of the next transfer has arrived; null for never */
  breakTransferAt(share: number | null): Promise<void>;
  /** leaves trims, a delay and an inverted polarity of somebody else in the active memory */
  leaveOldSettings(): Promise<void>;
}

/**
 * What every processor must do for Pebble Hall.
 * Errors are sentences that say what to do: `ProcessorError`, or an AbortError where the call was cancelled.
 */
export interface ProcessorPort {
  readonly profile: ProcessorProfile;
  readonly capabilities: ProcessorCapabilities;
  state(): Promise<ProcessorState>;
  /** Reads a memory back, filters and all. */
  readMemory(letter: string): Promise<MemoryContents>;
  /** Settings and filters that are active now. */
  activeOutputs(): Promise<Pick<MemoryContents, 'outputs' | 'filters'>>;
  recall(letter: string): Promise<ProcessorState>;
  rename(letter: string, name: string): Promise<ProcessorState>;
  copy(from: string, to: string): Promise<ProcessorState>;
  /** Changes what outputs of the active memory do, at once. */
  setOutputs(changes: OutputChange[]): Promise<ProcessorState>;
  /** Announces a transfer; the memory stays as it is until the transfer is complete. Returns the transfer's id. */
  beginTransfer(request: LoadRequest, signal?: AbortSignal): Promise<string>;
  /**
   * Sends what the processor has not yet got of a transfer and completes it. When it stops or breaks, the transfer waits
   * to be resumed, and the memory keeps what it held.
   */
  sendTransfer(
    id: string,
    filters: Float32Array[],
    onProgress: (share: number) => void,
    signal?: AbortSignal,
  ): Promise<MemorySummary>;
  abandonTransfer(id: string): Promise<ProcessorState>;
  /** What the processor will say of a memory that holds exactly this. */
  checksumOf(request: Pick<LoadRequest, 'outputs' | 'filters'>): number;
  /** What it may say of a memory that this was loaded into: as sent, or with what it changes by itself on loading. */
  heldAfterLoad(request: Pick<LoadRequest, 'outputs' | 'filters'>): number[];
}

/** Summary of the active memory, which is never empty. */
export function activeMemory(state: ProcessorState): MemorySummary {
  const found = state.memories.find((m) => m.letter === state.active);
  if (!found || 'empty' in found) throw new ProcessorError('The processor has no active memory.');
  return found;
}
