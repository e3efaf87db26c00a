import { plainOutput, type ProcessorState } from '@pebble-hall/core/processing';
import type { MemoryLoad } from '@pebble-hall/core/project';
import { describe, expect, it } from 'vitest';
import { besideOf, foreignIn, goneFrom } from './holding';

const meant = [
  { ...plainOutput(), trimDb: -3, taps: 8192 },
  { ...plainOutput(), delayMs: 2, taps: 0 },
];
const load = { letter: 'B', checksum: 7, outputs: meant } as MemoryLoad;
const holding = (outputs: typeof meant, checksum: number) =>
  ({
    memories: [
      { letter: 'A', empty: true },
      { letter: 'B', checksum, outputs },
    ],
  }) as unknown as ProcessorState;

describe('what the processor has otherwise than it was loaded', () => {
  it('is nothing while the memory is as it was meant to be, empty, or not known', () => {
    expect(besideOf(load, holding(meant, 7))).toEqual([]);
    expect(besideOf(load, null)).toEqual([]);
    expect(besideOf(null, holding(meant, 7))).toEqual([]);
    expect(besideOf({ ...load, letter: 'A' }, holding(meant, 7))).toEqual([]);
  });

  it('is each setting that was reset', () => {
    const reset = [{ ...meant[0]!, trimDb: 0 }, meant[1]!];
    const beside = besideOf(load, holding(reset, 8));
    expect(beside).toHaveLength(1);
    expect(beside[0]).toMatchObject({ output: 1 });
  });

  it('is not told when the memory holds other filters altogether', () => {
    const another = [{ ...meant[0]!, taps: 4096, trimDb: 0 }, meant[1]!];
    expect(besideOf(load, holding(another, 8))).toEqual([]);
  });
});

describe('what was loaded is gone', () => {
  const another = [{ ...meant[0]!, taps: 4096 }, meant[1]!];
  it('from a memory that is empty, or holds other filters', () => {
    expect(goneFrom({ ...load, letter: 'A' }, holding(meant, 7))).toBe('empty');
    expect(goneFrom(load, holding(another, 8))).toBe('other');
    expect(goneFrom(load, holding(meant, 8))).toBe('other');
    // without its settings nothing but the checksum tells
    expect(goneFrom({ ...load, outputs: null }, holding(meant, 8))).toBe('other');
  });
  it('not from one that holds it, be it with other settings, and not while nothing is known', () => {
    expect(goneFrom(load, holding(meant, 7))).toBeNull();
    expect(goneFrom(load, holding([{ ...meant[0]!, trimDb: 0 }, meant[1]!], 8))).toBeNull();
    expect(goneFrom(load, null)).toBeNull();
    expect(goneFrom(null, holding(meant, 7))).toBeNull();
  });
});

describe('what a memory holds that is not of the project', () => {
  const named = (checksum: number, outputs = meant) => {
    const state = holding(outputs, checksum);
    const [empty, full] = state.memories;
    return { ...state, memories: [empty!, { ...full!, name: 'Ballroom' }] } as ProcessorState;
  };
  it('is named before it is overwritten', () => {
    expect(foreignIn({ loads: [] }, named(7), 'B')).toBe('Ballroom');
    const another = [{ ...meant[0]!, taps: 4096 }, meant[1]!];
    expect(foreignIn({ loads: [load] }, named(8, another), 'B')).toBe('Ballroom');
    expect(foreignIn({ loads: [{ ...load, letter: 'C' }] }, named(7), 'B')).toBe('Ballroom');
  });
  it('is nothing where it is empty, unknown, or was loaded here, be it with settings changed since', () => {
    expect(foreignIn({ loads: [] }, named(7), 'A')).toBeNull();
    expect(foreignIn({ loads: [] }, null, 'B')).toBeNull();
    expect(foreignIn({ loads: [load] }, named(7), 'B')).toBeNull();
    expect(foreignIn({ loads: [load] }, named(8, [{ ...meant[0]!, trimDb: 0 }, meant[1]!]), 'B')).toBeNull();
  });
});
