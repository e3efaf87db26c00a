import { crc32 } from '@pebble-hall/core/formats';
import {
  plainOutput,
  type MemorySummary,
  type OutputChange,
  type OutputSettings,
  type ProcessorState,
  type TransferState,
} from '@pebble-hall/core/processing';
import {
  memoryChecksum,
  packFilters,
  settingsAfterLoad,
  SKERRY,
  unpackFilters,
  type Memory,
} from './settings.js';

/** Why the processor refused; `status` is the HTTP status that says so. */
export class ProcessorRefusal extends Error {
  override name = 'ProcessorRefusal';
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

interface Transfer {
  id: string;
  letter: string;
  name: string;
  outputs: OutputSettings[];
  bytes: Uint8Array;
  received: number;
  checksum: number;
}

/**
 * The Skerry 12 stand-in. A memory is written by a transfer: announced with its settings, sent in chunks, completed with a
 * checksum. Only a complete and verified transfer replaces what the memory held; until then it stays as it was, and a transfer
 * whose link was lost can be gone on with. Loading sets trims, sizes and crossovers of the corrected outputs back.
 */
export class Processor {
  private readonly memories = new Map<string, Memory>();
  private active: string = 'A';
  private transfer: Transfer | null = null;
  private transfers = 0;
  /** practice fault: the link is lost once this share of a transfer has arrived; then it is whole again */
  breakAtShare: number | null = null;

  constructor(
    house: Memory,
    private readonly now: () => number = Date.now,
  ) {
    this.memories.set('A', house);
  }

  state(): ProcessorState {
    return {
      model: SKERRY.model,
      transfer: this.transfer && transferState(this.transfer),
      active: this.active,
      memories: SKERRY.memories.map((letter) => {
        const memory = this.memories.get(letter);
        return memory ? summary(letter, memory) : { letter, empty: true };
      }),
    };
  }

  /** Settings and filters of a memory, for reading back. */
  read(letter: string): { summary: MemorySummary; filters: Uint8Array } {
    const memory = this.memories.get(letter);
    if (!memory) throw new ProcessorRefusal(404, `Memory ${letter} is empty.`);
    return { summary: summary(letter, memory), filters: packFilters(memory.filters) };
  }

  /** Changes what outputs of the active memory do, at once; filters and their lengths stay. */
  set(changes: OutputChange[]): void {
    const memory = this.memories.get(this.active)!;
    if (this.transfer) {
      throw new ProcessorRefusal(
        409,
        `A transfer into memory ${this.transfer.letter} is under way; wait for it.`,
      );
    }
    const outputs = memory.outputs.map((o) => ({ ...o }));
    for (const { output, ...change } of changes) Object.assign(outputs[output - 1]!, change);
    this.memories.set(this.active, { ...memory, outputs, savedAt: this.now() });
  }

  rename(letter: string, name: string): void {
    const memory = this.held(letter);
    this.memories.set(letter, { ...memory, name });
  }

  /** Copies a memory over another; not over one that a transfer goes into. */
  copy(from: string, to: string): void {
    const memory = this.held(from);
    if (this.transfer?.letter === to)
      throw new ProcessorRefusal(409, `A transfer into memory ${to} is under way; wait for it.`);
    this.memories.set(to, { ...memory, savedAt: this.now() });
  }

  private held(letter: string): Memory {
    const memory = this.memories.get(letter);
    if (!memory) throw new ProcessorRefusal(409, `Memory ${letter} is empty.`);
    return memory;
  }

  recall(letter: string): void {
    if (!this.memories.has(letter))
      throw new ProcessorRefusal(409, `Memory ${letter} is empty and cannot be recalled.`);
    this.active = letter;
  }

  /** Announces a transfer; a second one at the same time is refused. */
  begin(
    letter: string,
    name: string,
    outputs: OutputSettings[],
    checksum: number,
  ): { id: string; bytes: number } {
    if (this.transfer) {
      throw new ProcessorRefusal(
        409,
        `A transfer into memory ${this.transfer.letter} is under way; wait for it, go on with it, or abandon it.`,
      );
    }
    if (outputs.length !== SKERRY.outputs)
      throw new ProcessorRefusal(400, `Settings for ${SKERRY.outputs} outputs are needed.`);
    const total = outputs.reduce((sum, o) => sum + o.taps, 0);
    const id = `t${++this.transfers}-${this.now().toString(36)}`;
    this.transfer = { id, letter, name, outputs, checksum, bytes: new Uint8Array(4 * total), received: 0 };
    return { id, bytes: 4 * total };
  }

  /** Takes the next chunk; `offset` must be where the last one ended, so that none is lost or doubled. */
  chunk(id: string, offset: number, bytes: Uint8Array, crc: number): { received: number } {
    const transfer = this.under(id);
    if (offset !== transfer.received) {
      throw new ProcessorRefusal(
        409,
        `The chunk starts at byte ${offset}; byte ${transfer.received} comes next.`,
      );
    }
    if (offset + bytes.length > transfer.bytes.length)
      throw new ProcessorRefusal(413, 'The chunk reaches past the announced size.');
    if (crc32(bytes) !== crc)
      throw new ProcessorRefusal(422, `The chunk at byte ${offset} arrived damaged; send it again.`);
    transfer.bytes.set(bytes, offset);
    transfer.received += bytes.length;
    if (this.breakAtShare !== null && transfer.received >= this.breakAtShare * transfer.bytes.length) {
      this.breakAtShare = null;
      throw new ProcessorRefusal(
        503,
        `The link was lost after ${transfer.received} of ${transfer.bytes.length} bytes.`,
      );
    }
    return { received: transfer.received };
  }

  /** Verifies and, only then, replaces the memory and makes it the active one. */
  complete(id: string): MemorySummary {
    const transfer = this.under(id);
    if (transfer.received !== transfer.bytes.length) {
      throw new ProcessorRefusal(
        409,
        `Only ${transfer.received} of ${transfer.bytes.length} bytes have arrived.`,
      );
    }
    this.transfer = null;
    if (memoryChecksum(transfer.outputs, transfer.bytes) !== transfer.checksum) {
      throw new ProcessorRefusal(422, 'The checksum over settings and filters does not agree.');
    }
    let filters: Float32Array[];
    try {
      filters = unpackFilters(
        transfer.bytes,
        transfer.outputs.map((o) => o.taps),
      );
    } catch (error) {
      throw new ProcessorRefusal(422, (error as Error).message);
    }
    const outputs = settingsAfterLoad(transfer.outputs);
    const memory = { name: transfer.name, outputs, filters, savedAt: this.now() };
    this.memories.set(transfer.letter, memory);
    this.active = transfer.letter;
    return summary(transfer.letter, memory);
  }

  abandon(id: string): void {
    this.under(id);
    this.transfer = null;
  }

  /** How far a transfer is, to go on with it. */
  transferOf(id: string): TransferState {
    return transferState(this.under(id));
  }

  private under(id: string): Transfer {
    if (this.transfer?.id !== id)
      throw new ProcessorRefusal(404, 'No such transfer is under way; begin it again.');
    return this.transfer;
  }
}

const transferState = ({ id, letter, name, received, bytes }: Transfer): TransferState => ({
  id,
  letter,
  name,
  received,
  bytes: bytes.length,
});

function summary(letter: string, { name, savedAt, outputs, filters }: Memory): MemorySummary {
  return {
    letter,
    name,
    savedAt,
    outputs,
    checksum: memoryChecksum(outputs, packFilters(filters)),
    hasFilters: filters.some((f) => f.length > 0) || outputs.some((o) => o.sections.length > 0),
  };
}

/** What the Skerry 12 of the Net Loft holds in memory A when it is switched on: subwoofers low-passed, nothing else. */
export function houseMemory(): Memory {
  const outputs = Array.from({ length: SKERRY.outputs }, (_, i) => ({
    ...plainOutput(),
    lowPass: i === 5 || i === 6 ? { kind: 'Linkwitz-Riley' as const, order: 4, frequency: 110 } : null,
  }));
  return { name: 'House', outputs, filters: outputs.map(() => new Float32Array(0)), savedAt: 0 };
}

/** What a processor holds that nobody has set up yet. */
export function plainMemory(): Memory {
  const outputs = Array.from({ length: SKERRY.outputs }, () => plainOutput());
  return { name: 'Plain', outputs, filters: outputs.map(() => new Float32Array(0)), savedAt: 0 };
}

/** Header of a request that tells which of the processors it is for. */
export const UNIT_HEADER = 'x-processor-unit';

/** What somebody left in it last year, for practice: trims, a delay, a turned polarity. */
export const LEFT_OVER: OutputChange[] = [
  { output: 1, trimDb: -3 },
  { output: 4, trimDb: 2.5 },
  { output: 7, delayMs: 6.5, inverted: true },
];
