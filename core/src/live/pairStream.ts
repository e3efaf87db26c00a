import { needWhole } from '../limits/index.js';

/** How a block of two inputs stands: only of good ones anything is worked out. */
export type BlockState = 'good' | 'silent' | 'clipped' | 'broken';

/** A block whose reference was taken `delay` samples earlier than what was measured. */
export interface PairBlock {
  reference: Float32Array;
  measured: Float32Array;
  state: BlockState;
}

/** Full scale, less what a converter may round. */
const CLIPPED = 0.9999;
/** So many samples in a row at full scale are no music. */
const CLIPPED_RUN = 3;
/** An input below this has nothing connected, dB re full scale (mean of the power). */
const SILENT_DB = -120;

/**
 * Two inputs that stream, cut into blocks: each `size` long, a new one every `hop` samples, the reference earlier by `delay`.
 * Where samples were lost, blocks begin anew behind the gap: none has a hole in it.
 */
export class PairStream {
  lostSamples = 0;
  private reference: Float32Array;
  private measured: Float32Array;
  /** how many samples wait in each */
  private held = 0;
  private expected: number | null = null;

  /** @param delay samples, whole; negative where the reference comes later */
  constructor(
    private readonly size: number,
    private readonly hop: number,
    private readonly delay: number,
    private readonly onBlock: (block: PairBlock) => void,
  ) {
    needWhole('PairStream', 'size of a block', size, 16, 1 << 20);
    needWhole('PairStream', 'hop', hop, 1, size);
    needWhole('PairStream', 'delay in samples', delay, -(1 << 22), 1 << 22);
    const room = size + Math.abs(delay) + 16_384;
    this.reference = new Float32Array(room);
    this.measured = new Float32Array(room);
  }

  /**
   * Takes what the inputs have brought.
   * @param at number of the first sample since the session began
   * @throws RangeError for parts of unlike length
   */
  push(at: number, reference: Float32Array, measured: Float32Array): void {
    if (reference.length !== measured.length)
      throw new RangeError(`PairStream: ${reference.length} and ${measured.length} samples`);
    if (this.expected !== null && at !== this.expected) {
      this.lostSamples += Math.max(0, at - this.expected);
      this.held = 0;
    }
    this.expected = at + reference.length;
    this.keep(reference, measured);
    const shift = Math.abs(this.delay);
    while (this.held >= this.size + shift) {
      const [r, m] = this.delay >= 0 ? [0, shift] : [shift, 0];
      const block = {
        reference: this.reference.subarray(r, r + this.size),
        measured: this.measured.subarray(m, m + this.size),
      };
      this.onBlock({ ...block, state: stateOf(block.reference, block.measured) });
      this.reference.copyWithin(0, this.hop, this.held);
      this.measured.copyWithin(0, this.hop, this.held);
      this.held -= this.hop;
    }
  }

  private keep(reference: Float32Array, measured: Float32Array): void {
    const needed = this.held + reference.length;
    if (needed > this.reference.length) {
      const grown = (of: Float32Array) => {
        const next = new Float32Array(2 * needed);
        next.set(of.subarray(0, this.held));
        return next;
      };
      this.reference = grown(this.reference);
      this.measured = grown(this.measured);
    }
    this.reference.set(reference, this.held);
    this.measured.set(measured, this.held);
    this.held = needed;
  }
}

function stateOf(reference: Float32Array, measured: Float32Array): BlockState {
  let isSilent = false;
  let isClipped = false;
  for (const samples of [reference, measured]) {
    let power = 0;
    let run = 0;
    for (let i = 0; i < samples.length; i++) {
      const v = samples[i]!;
      power += v * v;
      run = v >= CLIPPED || v <= -CLIPPED ? run + 1 : 0;
      if (run >= CLIPPED_RUN) isClipped = true;
    }
    if (!Number.isFinite(power)) return 'broken';
    if (10 * Math.log10(power / samples.length) < SILENT_DB) isSilent = true;
  }
  return isClipped ? 'clipped' : isSilent ? 'silent' : 'good';
}
