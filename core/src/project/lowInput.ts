import type { Project } from './types.js';

/**
 * The processor's input that takes the low-frequency channel: the first whose output no loudspeaker is on.
 * @param inputs how many the processor has
 * @throws Error when every output has a loudspeaker
 */
export function lowInput({ place }: Pick<Project, 'place'>, inputs: number): number {
  const taken = place.loudspeakers.map((l) => l.output);
  const free = Array.from({ length: inputs }, (_, i) => i + 1).find((n) => !taken.includes(n));
  if (!free)
    throw new Error('every output has a loudspeaker, so no input is left for a low-frequency channel.');
  return free;
}
