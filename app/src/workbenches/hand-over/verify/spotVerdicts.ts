import {
  type LoadVerdict,
  type MemoryLoad,
  type Project,
  verdictKey,
  verifiedIds,
  verifiedOf,
  type VerifiedStage,
} from '@pebble-hall/core/project';
import { useDerived } from '../../../services/useDerived';
import { compareLoad, comparisonGround, type Comparison, type ComparisonGround } from './compareLoad';

/** How far a spot is from what was predicted there, at most, over its channels. */
export interface SpotVerdict {
  spotId: string;
  name: string;
  /** channels that were measured again there */
  measured: number;
  worst: { id: string; db: number; at: number };
  /** whether all of them were judged, and do what was predicted */
  agrees: boolean;
  /** those that lie too near the noise to be judged */
  unjudged: number;
}

/** What the comparisons of a spot come to; null where nothing was measured again. */
export function spotVerdict(
  { id, name }: { id: string; name: string },
  list: Pick<Comparison, 'id' | 'difference'>[],
): SpotVerdict | null {
  const misses = list.flatMap((c) => (c.difference ? [{ id: c.id, ...c.difference }] : []));
  if (misses.length === 0) return null;
  const wrong = misses.filter((m) => m.isJudged && !m.agrees);
  const unjudged = misses.filter((m) => !m.isJudged).length;
  const worst = (wrong.length > 0 ? wrong : misses).reduce((a, b) =>
    Math.abs(b.worstDb) > Math.abs(a.worstDb) ? b : a,
  );
  return {
    spotId: id,
    name,
    measured: misses.length,
    worst: { id: worst.id, db: worst.worstDb, at: worst.worstAt },
    agrees: wrong.length === 0 && unjudged === 0,
    unjudged,
  };
}

/** Spots where something was measured again with a load. */
const measuredSpots = (project: Project, load: MemoryLoad, stage: VerifiedStage) =>
  project.place.spots.filter((spot) =>
    verifiedIds(project, load, stage).some((id) => verifiedOf(project, load, id, spot.id, stage)),
  );

/** The verdict of every spot that was measured again. */
export async function verdictsOfSpots(
  project: Project,
  load: MemoryLoad,
  stage: VerifiedStage = 'verified',
): Promise<SpotVerdict[]> {
  const out: SpotVerdict[] = [];
  for (const spot of measuredSpots(project, load, stage)) {
    const verdict = spotVerdict(spot, await compareLoad(comparisonGround(project, load, spot.id, stage)));
    if (verdict) out.push(verdict);
  }
  return out;
}

/** The verdict on the home spot as it is now; null while a channel is not measured again, not judged, or cannot be compared any more. */
export async function homeVerdict(project: Project, load: MemoryLoad): Promise<LoadVerdict | null> {
  const list = await compareLoad(comparisonGround(project, load, project.place.spots[0]!.id, 'verified'));
  return verdictOf(list, Object.keys(load.spans), verdictKey(project, load));
}

/** What comparisons come to over all channels that were corrected. */
export function verdictOf(
  list: Pick<Comparison, 'id' | 'difference'>[],
  ids: string[],
  of: string,
): LoadVerdict | null {
  const judged = new Map(
    list.flatMap((c) => (c.difference?.isJudged ? [[c.id, c.difference.agrees] as const] : [])),
  );
  return ids.every((id) => judged.has(id)) ? { of, missing: ids.filter((id) => !judged.get(id)) } : null;
}

interface Asked {
  spots: { id: string; name: string }[];
  grounds: ComparisonGround[];
}

async function verdictsOf({ spots, grounds }: Asked): Promise<SpotVerdict[]> {
  const out: SpotVerdict[] = [];
  for (const [i, ground] of grounds.entries()) {
    const verdict = spotVerdict(spots[i]!, await compareLoad(ground));
    if (verdict) out.push(verdict);
  }
  return out;
}

const NONE: SpotVerdict[] = [];

/** The verdicts of all spots for the screen, once more than one spot was measured again and nothing is under way. */
export function useSpotVerdicts(
  project: Project,
  load: MemoryLoad | null,
  stage: VerifiedStage,
  rests: boolean,
): SpotVerdict[] {
  const spots = load && rests ? measuredSpots(project, load, stage) : [];
  const asked =
    load && spots.length > 1
      ? {
          spots: spots.map(({ id, name }) => ({ id, name })),
          grounds: spots.map((s) => comparisonGround(project, load, s.id, stage)),
        }
      : null;
  // what is wrong, the spot that is looked at says
  return useDerived(asked, verdictsOf).value ?? NONE;
}
