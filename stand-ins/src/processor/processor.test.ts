import { crc32 } from '@pebble-hall/core/formats';
import { pathTrace } from '@pebble-hall/core/path';
import { plainOutput } from '@pebble-hall/core/processing';
import { binFrequencies, inverseRealFft } from '@pebble-hall/core/signal';
import { beforeEach, describe, expect, it } from 'vitest';
import {
  houseMemory,
  LEFT_OVER,
  memoryChecksum,
  packFilters,
  Processor,
  ProcessorRefusal,
  skerryPath,
  unpackFilters,
} from './index.js';

let processor: Processor;
beforeEach(() => {
  processor = new Processor(houseMemory(), () => 1000);
});

const filters = Array.from({ length: 12 }, (_, i) =>
  i < 2 ? Float32Array.of(1, 0.5, -0.25 * (i + 1)) : new Float32Array(0),
);
const outputs = filters.map((f) => ({ ...plainOutput(), taps: f.length }));
const bytes = packFilters(filters);
const checksum = memoryChecksum(outputs, bytes);

function send(letter: 'B' | 'C', upTo = bytes.length) {
  const { id } = processor.begin(letter, 'Evening', outputs, checksum);
  for (let at = 0; at < upTo; at += 8) {
    const part = bytes.subarray(at, Math.min(at + 8, upTo));
    processor.chunk(id, at, part, crc32(part));
  }
  return id;
}

describe('settings of the active memory', () => {
  it('change at once, filters and other outputs untouched, and can be put back', () => {
    processor.complete(send('B'));
    const before = processor.read('B');
    processor.set(LEFT_OVER);
    const { summary, filters: kept } = processor.read('B');
    expect(summary.outputs[0]).toEqual({ ...before.summary.outputs[0]!, trimDb: -3 });
    expect(summary.outputs[6]).toMatchObject({ delayMs: 6.5, inverted: true });
    expect(summary.outputs[1]).toEqual(before.summary.outputs[1]);
    expect(kept).toEqual(before.filters);
    expect(summary.checksum).not.toBe(before.summary.checksum);
    processor.set(
      before.summary.outputs.map(({ trimDb, delayMs, inverted }, i) => ({
        output: i + 1,
        trimDb,
        delayMs,
        inverted,
      })),
    );
    expect(processor.read('B').summary.checksum).toBe(before.summary.checksum);
  });

  it('do not change while a transfer is under way', () => {
    processor.begin('C', 'x', outputs, checksum);
    expect(() => processor.set(LEFT_OVER)).toThrow(/transfer into memory C is under way/);
  });
});

describe('a transfer', () => {
  it('becomes active when complete, and reads back what was sent', () => {
    expect(processor.state().active).toBe('A');
    expect(processor.complete(send('B'))).toMatchObject({
      letter: 'B',
      name: 'Evening',
      checksum,
      hasFilters: true,
    });
    expect(processor.state().active).toBe('B');
    expect(processor.read('B').filters).toEqual(bytes);
    expect(
      unpackFilters(
        processor.read('B').filters,
        outputs.map((o) => o.taps),
      ),
    ).toEqual(filters);
  });

  it('changes nothing before that, nor when it breaks', () => {
    processor.complete(send('B'));
    const before = processor.state();
    processor.breakAtShare = 0.5;
    expect(() => send('B')).toThrow(/link was lost after 16 of 24/);
    const { transfer, ...rest } = processor.state();
    expect({ ...rest, transfer: null }).toEqual(before);
    expect(transfer).toMatchObject({ letter: 'B', received: 16, bytes: 24 });
  });

  it('can be gone on with where the link was lost', () => {
    processor.breakAtShare = 0.3;
    expect(() => send('B')).toThrow(/link was lost after 8 of 24/);
    const { id } = processor.state().transfer!;
    const { received } = processor.transferOf(id);
    const rest = bytes.subarray(received);
    processor.chunk(id, received, rest, crc32(rest));
    expect(processor.complete(id)).toMatchObject({ letter: 'B', checksum });
    expect(processor.state().transfer).toBeNull();
    expect(() => processor.transferOf(id)).toThrow(/No such transfer/);
  });

  it('sets trims, sizes and crossovers of what it corrects back, and nothing else', () => {
    const highPass = { kind: 'Butterworth' as const, order: 2, frequency: 80 };
    const wanted = outputs.map((o) => ({ ...o, trimDb: -3, delayMs: 2, size: 'small' as const, highPass }));
    const { id } = processor.begin('D', 'Evening', wanted, memoryChecksum(wanted, bytes));
    processor.chunk(id, 0, bytes, crc32(bytes));
    const { checksum: after, outputs: got } = processor.complete(id);
    expect(got[0]).toEqual({ ...wanted[0]!, trimDb: 0, size: 'large', highPass: null });
    expect(got[5]).toEqual(wanted[5]); // no filter, so not touched
    expect(after).not.toBe(memoryChecksum(wanted, bytes));
    processor.set([0, 1].map((i) => ({ output: i + 1, trimDb: -3, size: 'small', highPass })));
    expect(processor.read('D').summary.checksum).toBe(memoryChecksum(wanted, bytes));
  });

  it('is refused when it is incomplete, damaged, doubled, out of order or too long', () => {
    const id = send('B', 16);
    expect(() => processor.begin('C', 'x', outputs, 0)).toThrow(/under way/);
    expect(() => processor.chunk(id, 0, bytes.subarray(0, 8), 0)).toThrow(/byte 16 comes next/);
    expect(() => processor.chunk(id, 16, bytes.subarray(16), 123)).toThrow(/arrived damaged/);
    expect(() => processor.chunk(id, 16, bytes, crc32(bytes))).toThrow(/past the announced size/);
    expect(() => processor.complete(id)).toThrow(/Only 16 of 24 bytes/);
    expect(() => processor.complete(id)).toThrow(ProcessorRefusal);
    expect(processor.state().memories[1]).toEqual({ letter: 'B', empty: true });
  });

  it('is refused when the checksum or a tap is wrong', () => {
    const { id } = processor.begin('B', 'x', outputs, checksum ^ 1);
    processor.chunk(id, 0, bytes, crc32(bytes));
    expect(() => processor.complete(id)).toThrow(/checksum/);
    const broken = packFilters([Float32Array.of(NaN, 1, 1), ...filters.slice(1)]);
    const next = processor.begin('B', 'x', outputs, memoryChecksum(outputs, broken));
    processor.chunk(next.id, 0, broken, crc32(broken));
    expect(() => processor.complete(next.id)).toThrow(/tap 0 of output 1 is NaN/);
  });

  it('can be abandoned, and others are not mistaken for it', () => {
    const id = send('B', 8);
    expect(() => processor.abandon('other')).toThrow(/No such transfer/);
    processor.abandon(id);
    processor.complete(send('C'));
  });
});

it('renames and copies memories, but not over one that is being loaded', () => {
  processor.complete(send('B'));
  processor.rename('B', 'Matinee');
  processor.copy('B', 'E');
  expect(processor.state().memories[4]).toMatchObject({ letter: 'E', name: 'Matinee', checksum });
  expect(() => processor.rename('F', 'x')).toThrow(/empty/);
  send('C', 8);
  expect(() => processor.copy('B', 'C')).toThrow(/transfer into memory C is under way/);
});

it('recalls a memory that holds something, and no empty one', () => {
  processor.complete(send('B'));
  processor.recall('A');
  expect(processor.state().active).toBe('A');
  expect(() => processor.recall('F')).toThrow(/empty/);
  expect(() => processor.read('F')).toThrow(/empty/);
});

it('sounds as its settings say: gain, polarity, delay and filter', () => {
  const settings = { ...plainOutput(), trimDb: -6.0206, inverted: true, delayMs: 1, taps: 2 };
  const impulse = inverseRealFft(
    pathTrace(skerryPath(settings, Float32Array.of(1, 0.5)), binFrequencies(4096, 48000)),
  );
  const at = (1 + 1.25) * 48; // delay and the processor's own latency
  expect(impulse[at]).toBeCloseTo(-0.5, 4);
  expect(impulse[at + 1]).toBeCloseTo(-0.25, 4);
  pathTrace(
    skerryPath({ ...settings, muted: true }, new Float32Array(0)),
    binFrequencies(64, 48000),
  ).re.forEach((v) => expect(v).toBeCloseTo(0));
});
