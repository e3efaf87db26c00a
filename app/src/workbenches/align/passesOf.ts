import type { AlignSource, Project } from '@pebble-hall/core/project';

/** Crossovers that can be set of a source: of what was swept they are those of its memory, a group has them in its parts. */
export function passesOf({ place }: Project, { of }: AlignSource): ('highPass' | 'lowPass')[] {
  if (of.kind === 'traces' || of.kind === 'distance' || of.kind === 'live') return ['highPass', 'lowPass'];
  if (of.kind !== 'channels' || of.from !== 'models') return [];
  const isSub = place.loudspeakers.some((l) => of.loudspeakerIds.includes(l.id) && l.role === 'subwoofer');
  return isSub ? ['lowPass', 'highPass'] : ['highPass'];
}
