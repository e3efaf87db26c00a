import { FILE_MEMORIES, type OutputSettings } from '@pebble-hall/core/processing';
import type { Project } from '@pebble-hall/core/project';
import { theProcessor } from './theProcessor';
import { sweepsUsed } from '@pebble-hall/core/jobs';

export interface BaseOutputs {
  letter: string;
  outputs: OutputSettings[];
}

/**
 * What the processor did while the room was measured: a correction goes on top of it.
 * @throws when that memory is not what it was, as the correction would not fit then
 */
export async function baseOutputs(
  project: Pick<Project, 'place' | 'sweeps' | 'roundId'>,
): Promise<BaseOutputs> {
  const used = sweepsUsed(project);
  if (used.length === 0) throw new Error('there is no correction yet. Measure in the Mic walk first.');
  const letter = used[0]!.memory.letter;
  const processor = theProcessor();
  const { memories } = processor.profile;
  const known: readonly string[] = memories.length > 0 ? memories : Object.values(FILE_MEMORIES);
  if (!known.includes(letter))
    throw new Error(
      'the sweeps were taken with another processor in the chain. Choose that one in Plan, or measure again with this one.',
    );
  const base = await processor.readMemory(letter);
  if (base.hasFilters || used.some((s) => s.memory.checksum !== base.checksum)) {
    throw new Error(
      `memory ${letter} has changed since the sweeps were taken, so the correction no longer fits it. Put it back, or measure again.`,
    );
  }
  return { letter, outputs: base.outputs };
}
