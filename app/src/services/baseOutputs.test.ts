import { FILE_MEMORIES, FILES_ONLY, type ProcessorProfile } from '@pebble-hall/core/processing';
import { SKERRY } from '@pebble-hall/stand-ins/processor';
import { expect, it, vi } from 'vitest';
import { baseOutputs } from './baseOutputs';

const chain = vi.hoisted(() => ({
  profile: null as ProcessorProfile | null,
  memory: { hasFilters: false, checksum: 7, outputs: [] },
}));
vi.mock('./theProcessor', () => ({
  theProcessor: () => ({ profile: chain.profile, readMemory: async () => chain.memory }),
}));
const sweepsOf = (letter: string) => [{ memory: { letter, checksum: 7 } }];
vi.mock('@pebble-hall/core/jobs', () => ({ sweepsUsed: ({ sweeps }: { sweeps: unknown[] }) => sweeps }));
const under = (profile: ProcessorProfile, sweeps: unknown[]) => {
  chain.profile = profile;
  return baseOutputs({ sweeps } as never);
};

it('what the processor did while the room was measured is what a correction goes on top of', async () => {
  expect(await under(SKERRY, sweepsOf('C'))).toEqual({ letter: 'C', outputs: [] });
  const byFiles = await under(FILES_ONLY, sweepsOf(FILE_MEMORIES.without));
  expect(byFiles.letter).toBe(FILE_MEMORIES.without);
});

it('says why a correction fits no longer: nothing measured, another memory, another processor', async () => {
  await expect(under(SKERRY, [])).rejects.toThrow(/Measure in the Mic walk first/);
  await expect(under(SKERRY, [{ memory: { letter: 'C', checksum: 8 } }])).rejects.toThrow(
    /memory C has changed/,
  );
  const another = /taken with another processor in the chain/;
  await expect(under(SKERRY, sweepsOf(FILE_MEMORIES.without))).rejects.toThrow(another);
  await expect(under(FILES_ONLY, sweepsOf('A'))).rejects.toThrow(another);
});
