import type { Project } from '@pebble-hall/core/project';
import { MOVED_S, type Verified } from './missReasons';

/** When a channel arrived at a spot, and how that has changed. */
export interface Arrival {
  id: string;
  /** as found */
  foundS: number | null;
  /** as measured again less what was to be expected */
  laterS: number | null;
}

/** What the arrivals of the other channels tell of one: whether they are where they were, and whose place it has taken. */
export function othersOf(
  { place }: { place: Pick<Project['place'], 'loudspeakers'> },
  arrivals: Arrival[],
  { id, foundS, laterS }: Arrival,
): Pick<Verified, 'laterS' | 'othersArrive' | 'arrivesLike'> {
  // a subwoofer's arrival is not known closely enough to tell
  const full = (one: string) =>
    place.loudspeakers.find((l) => l.id === one && l.role === 'full range')?.name ?? null;
  const others = arrivals.filter((a) => a.id !== id && full(a.id) !== null && a.laterS !== null);
  const there = others.filter((a) => Math.abs(a.laterS!) <= MOVED_S['full range']);
  const like =
    foundS === null || laterS === null || full(id) === null
      ? undefined
      : others.find(
          (a) => a.foundS !== null && Math.abs(a.foundS - foundS - laterS) <= MOVED_S['full range'],
        );
  return {
    laterS,
    othersArrive: others.length === 0 ? null : there.length >= others.length / 2,
    arrivesLike: like ? full(like.id) : null,
  };
}
