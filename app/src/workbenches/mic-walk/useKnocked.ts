import { likeness, SAME_PLACE } from '@pebble-hall/core/measure';
import { type Project, type Spot, type Sweep, fittedOf, sweepOf } from '@pebble-hall/core/project';
import QuickLRU from 'quick-lru';
import { useDerived } from '../../services/useDerived';
import { repository } from '../../store';

/** A spot whose reference click sounded different from one sweep on: the stand was knocked. */
export interface KnockedSpot {
  spot: Spot;
  /** sweeps after that, in the order taken */
  sweeps: Sweep[];
}

const known = new QuickLRU<string, Float32Array>({ maxSize: 500 });

async function referenceOf(id: string): Promise<Float32Array | null> {
  const found = known.get(id) ?? (await repository().array(id))?.samples ?? null;
  if (found) known.set(id, found);
  return found;
}

type Ground = Pick<Project, 'place' | 'sweeps' | 'roundId'>;

/** Spots of the round under way where the answer to the reference click changed between two sweeps. */
export async function knockedSpots(
  project: Ground,
  read: (id: string) => Promise<Float32Array | null> = referenceOf,
): Promise<KnockedSpot[]> {
  const found: KnockedSpot[] = [];
  for (const spot of project.place.spots) {
    const sweeps = fittedOf(project)
      .flatMap((l) => sweepOf(project, spot.id, l.id) ?? [])
      .filter((s) => s.referenceId !== null && s.verdict.state !== 'failed')
      .sort((a, b) => a.takenAt - b.takenAt);
    const answers = await Promise.all(sweeps.map((s) => read(s.referenceId!)));
    const at = answers.findIndex((a, i) => {
      const before = answers[i - 1];
      return i > 0 && a !== null && before && likeness(before, a) < SAME_PLACE;
    });
    if (at > 0) found.push({ spot, sweeps: sweeps.slice(at) });
  }
  return found;
}

const NONE: KnockedSpot[] = [];
const find = (ground: Ground) => knockedSpots(ground);
const OPTIONS = { follows: (a: Ground, b: Ground) => a.roundId === b.roundId };

/** `knockedSpots`, kept up with the project. */
export function useKnocked({ place, sweeps, roundId }: Project): KnockedSpot[] {
  // without it the round goes on all the same: arrivals tell most of it, too
  return useDerived({ place, sweeps, roundId }, find, OPTIONS).value ?? NONE;
}
