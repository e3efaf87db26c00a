import { FILE_MEMORIES, FILES_ONLY, plainOutput } from '@pebble-hall/core/processing';
import { expect, it, vi } from 'vitest';
import { FilesOnlyProcessor, type PutInPlace } from './filesOnlyProcessor';
import { activeMemory } from './ProcessorPort';

const { without: WITHOUT, placed: WITH } = FILE_MEMORIES;
const made = (inPlace: PutInPlace | null = null, onTakenOut = async () => {}) =>
  new FilesOnlyProcessor({ profile: FILES_ONLY, outputs: 3, inPlace, onTakenOut });
const outputs = [0, 1, 2].map((i) => ({ ...plainOutput(), trimDb: -i }));
const filters = [Float32Array.of(1, 0.5), new Float32Array(0), new Float32Array(0)];

it('plays plainly until the engineer says that something is in place', async () => {
  const memory = activeMemory(await made().state());
  expect(memory).toMatchObject({ letter: WITHOUT, hasFilters: false, checksum: 0 });
  const { outputs: plain, filters: none } = await made().activeOutputs();
  expect(plain).toEqual([plainOutput(), plainOutput(), plainOutput()]);
  expect(none.every((f) => f.length === 0)).toBe(true);
});

it('holds what was put in place, and plainly again once it is taken out', async () => {
  const checksum = made().checksumOf({ outputs, filters });
  const takenOut = vi.fn(async () => {});
  const placed = made(
    { name: 'Evening', loadedAt: 5, checksum, outputs, filters: async () => filters },
    takenOut,
  );
  expect(activeMemory(await placed.state())).toMatchObject({ letter: WITH, hasFilters: true, checksum });
  expect((await placed.activeOutputs()).filters).toEqual(filters);
  expect(activeMemory(await placed.recall(WITHOUT)).hasFilters).toBe(false);
  expect(takenOut).toHaveBeenCalledOnce();
  // what was measured through is still known
  expect((await placed.readMemory(WITHOUT)).outputs[1]).toEqual(plainOutput());
});

it('tells loads apart, and never takes one for nothing', () => {
  const one = made().checksumOf({ outputs, filters });
  expect(one).not.toBe(0);
  expect(made().checksumOf({ outputs, filters: [Float32Array.of(1, 0.4), ...filters.slice(1)] })).not.toBe(
    one,
  );
  expect(made().checksumOf({ outputs: outputs.toReversed(), filters })).not.toBe(one);
});

it('says what to do where it is asked for what only a line could do', async () => {
  await expect(made().beginTransfer()).rejects.toThrow(/Save the files in Hand over/);
  await expect(made().readMemory('A')).rejects.toThrow(/memory A of another processor/);
});
