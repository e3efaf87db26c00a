import type { MemoryLoad } from '@pebble-hall/core/project';
import { WITH, WITHOUT } from '../ports/processor';

/** Where a load is, in words. */
export const memoryWords = ({ letter }: Pick<MemoryLoad, 'letter'>): string =>
  letter === ''
    ? 'as designed, not loaded'
    : letter === WITH
      ? 'the processor, by files'
      : letter === WITHOUT
        ? 'the processor without filters of ours'
        : `memory ${letter}`;

/** The same where there is little room. */
export const memoryShort = ({ letter }: Pick<MemoryLoad, 'letter'>): string =>
  letter === WITH ? 'files' : letter;
