import type { Span } from '../correct/index.js';
import type { OutputSettings } from '../processing/index.js';

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
  /** how the home spot did when it was last measured again; null until then */
  verdict: LoadVerdict | null;
}

/** Which channels did not do what was predicted, and of which sweeps that is said. */
export interface LoadVerdict {
  of: string;
  missing: string[];
}

/** A load that has been begun and not completed: it can be gone on with. */
export interface PendingLoad {
  load: MemoryLoad;
  transferId: string;
}
