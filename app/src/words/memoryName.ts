import type { MemoryLoad } from '@pebble-hall/core/project';

/** Where a load is, in words. */
export const memoryWords = ({ letter }: Pick<MemoryLoad, 'letter'>): string =>
  letter === '' ? 'as designed, not loaded' : `memory ${letter}`;
