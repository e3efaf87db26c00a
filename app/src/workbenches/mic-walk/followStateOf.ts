import {
  type Project,
  type Spot,
  fittedOf,
  roundOf,
  sweepOf,
  loudspeakerById,
} from '@pebble-hall/core/project';
import type { FollowState } from '../../services/followState';
import type { SpotState } from '../../drawing';
import { reasonSentence } from '../../words/sweepReasons';
import { whereText } from './SpotCard';
import type { WalkNow } from './useWalk';

/** What somebody away from the screen is told of the round. */
export function followStateOf(
  project: Project,
  now: WalkNow | null,
  chosen: Spot,
  stateOf: (spotId: string) => SpotState,
): FollowState {
  const { spots, loudspeakers } = project.place;
  const at = now ? spots.filter((s) => now.spotIds.includes(s.id)) : [chosen];
  const first = at[0] ?? chosen;
  const troubled = fittedOf(project).find((l) => {
    const sweep = sweepOf(project, first.id, l.id);
    return sweep && sweep.verdict.state !== 'good';
  });
  const reasons = troubled && sweepOf(project, first.id, troubled.id)!.verdict.reasons;
  return {
    round: roundOf(project).name,
    phase: now?.phase ?? 'idle',
    spotId: first.id,
    spot: at.map((s) => s.name).join(' and '),
    where: at.map((s) => whereText(spots[0]!, s)).join('; '),
    channel: now ? (loudspeakerById({ loudspeakers }, now.loudspeakerId)?.name ?? null) : null,
    leftS: now?.leftS ?? 0,
    done: now?.done ?? 0,
    total: now?.total ?? 0,
    share: now?.share ?? 0,
    spots: spots.map((s) => ({ id: s.id, name: s.name, state: stateOf(s.id) })),
    trouble: troubled && reasons ? `${troubled.name}: ${reasons.map(reasonSentence).join('; ')}` : null,
  };
}
