import { plainOutput, type OutputSettings } from '@pebble-hall/core/processing';
import type { PendingLoad } from '@pebble-hall/core/project';
import { SKERRY } from '@pebble-hall/stand-ins/processor';
import { describe, expect, it } from 'vitest';
import { houseMemory, memoryChecksum, packFilters, Processor } from '@pebble-hall/stand-ins/processor';
import { crc32 } from '@pebble-hall/core/formats';
import { StandInProcessor } from '../ports/processor';
import { outcomeOf, outcomeWords } from './pendingTransfer';

const port = new StandInProcessor();
const filters = Array.from({ length: SKERRY.outputs }, (_, i) =>
  i === 0 ? Float32Array.of(1, 0.5, -0.25, 0.125) : new Float32Array(0),
);
const outputs: OutputSettings[] = filters.map((f) => ({
  ...plainOutput(),
  taps: f.length,
  trimDb: f.length ? -3 : 0,
}));
const bytes = packFilters(filters);
const checksum = memoryChecksum(outputs, bytes);

/** A processor at a phase of a transfer into memory B, and how the port sees it. */
function at(phase: 'begun' | 'half' | 'sent' | 'complete' | 'restarted') {
  let device = new Processor(houseMemory());
  const { id } = device.begin('B', 'new', outputs, checksum);
  if (phase !== 'begun') {
    device.chunk(id, 0, bytes.subarray(0, 8), crc32(bytes.subarray(0, 8)));
    if (phase !== 'half') device.chunk(id, 8, bytes.subarray(8), crc32(bytes.subarray(8)));
  }
  if (phase === 'complete') device.complete(id);
  if (phase === 'restarted') device = new Processor(houseMemory());
  const pending = { transferId: id, load: { letter: 'B', outputs } } as unknown as PendingLoad;
  const asked = {
    state: () => Promise.resolve(device.state()),
    readMemory: (letter: string) => {
      const { summary } = device.read(letter);
      const memory = device.read(letter).filters;
      let from = 0;
      return Promise.resolve({
        ...summary,
        filters: summary.outputs.map((o) => {
          const part = memory.slice(4 * from, 4 * (from + o.taps));
          from += o.taps;
          return new Float32Array(part.buffer);
        }),
      });
    },
    heldAfterLoad: port.heldAfterLoad.bind(port),
  };
  return { device, id, pending, asked };
}
const told = async ({ asked, pending }: ReturnType<typeof at>) => outcomeOf(asked, pending, filters);

describe('what became of a transfer is what the processor holds', () => {
  it('waits at every phase before it is complete', async () => {
    expect(await told(at('begun'))).toEqual({ kind: 'waits', share: 0 });
    expect(await told(at('half'))).toEqual({ kind: 'waits', share: 0.5 });
    expect(await told(at('sent'))).toEqual({ kind: 'waits', share: 1 });
  });

  it('has arrived once it is complete, though the answer was lost and the device changed settings by itself', async () => {
    const done = at('complete');
    expect(await told(done)).toEqual({ kind: 'arrived' });
    // somebody has turned a knob since
    done.device.set([{ output: 5, trimDb: -6 }]);
    expect(await told(done)).toEqual({ kind: 'arrived' });
  });

  it('is lost where the processor was restarted, or another load went into the memory', async () => {
    const empty = await told(at('restarted'));
    expect(empty).toEqual({ kind: 'lost', isEmpty: true });
    expect(outcomeWords('B', empty)).toBe('Memory B is empty. Load it again.');
    const other = at('half');
    other.device.abandon(other.id);
    other.device.copy('A', 'B');
    expect(await told(other)).toEqual({ kind: 'lost', isEmpty: false });
  });

  it('a completion that comes too early leaves the transfer where it was', async () => {
    const early = at('half');
    expect(() => early.device.complete(early.id)).toThrow(/Only 8 of 16/);
    expect(await told(early)).toEqual({ kind: 'waits', share: 0.5 });
  });
});
