import type { OutputSettings } from './settings.js';

/** A memory as a processor tells of it, without its filters' samples. */
export interface MemorySummary {
  letter: string;
  name: string;
  savedAt: number;
  checksum: number;
  hasFilters: boolean;
  outputs: OutputSettings[];
}

/** A memory read back, filters and all: one FIR per output, empty where there is none. */
export interface MemoryContents extends MemorySummary {
  filters: Float32Array[];
}

/** A transfer that was begun and is not complete. */
export interface TransferState {
  id: string;
  letter: string;
  name: string;
  received: number;
  bytes: number;
}

/** What a processor holds at a moment. */
export interface ProcessorState {
  model: string;
  transfer: TransferState | null;
  active: string;
  memories: (MemorySummary | { letter: string; empty: true })[];
}

/** New values for one output, from 1. */
export interface OutputChange extends Partial<
  Pick<
    OutputSettings,
    'trimDb' | 'delayMs' | 'inverted' | 'muted' | 'size' | 'highPass' | 'lowPass' | 'bassFeed' | 'playsBass'
  >
> {
  output: number;
}

/** What is written into a memory. */
export interface LoadRequest {
  letter: string;
  name: string;
  outputs: OutputSettings[];
  filters: Float32Array[];
}
