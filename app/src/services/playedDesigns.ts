import type { ChannelDesign } from '@pebble-hall/core/correct';
import { channelRequests, designGround } from '@pebble-hall/core/jobs';
import { filterPart, fittedOf, type Correction, type Project } from '@pebble-hall/core/project';
import { readBassSums, withBass } from './bassSums';
import { designAll, exactFilters } from './exactFilters';

/** Designs of all channels as they will play: those that send their bass to the subwoofers with it. */
export async function playedDesigns(
  project: Project,
  correction: Correction,
): Promise<{ designs: ChannelDesign[]; sendsBass: ReadonlySet<string> }> {
  const ground = designGround(project);
  const filters = await exactFilters(ground, filterPart(correction));
  const sums = await readBassSums({ ground, correction, filters });
  const sub = fittedOf(project).find((l) => l.role === 'subwoofer' && filters.designs.has(l.id));
  const alone = await designAll(channelRequests(ground, correction));
  return {
    designs: [...withBass(alone, sums, sub?.id ?? null).values()],
    sendsBass: new Set(sums.keys()),
  };
}
