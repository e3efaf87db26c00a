import { FILE_MEMORIES } from '@pebble-hall/core/processing';
import type { MemoryLoad } from '@pebble-hall/core/project';

/** Where a load is, in words. */
export const memoryWords = ({ letter }: Pick<MemoryLoad, 'letter'>): string =>
  letter === ''
    ? 'as designed, not loaded'
    : letter === FILE_MEMORIES.placed
      ? 'the processor, by files'
      : letter === FILE_MEMORIES.without
        ? 'the processor without filters of ours'
        : `memory ${letter}`;

/** The same where there is little room. */
export const memoryShort = ({ letter }: Pick<MemoryLoad, 'letter'>): string =>
  letter === FILE_MEMORIES.placed ? 'files' : letter;
