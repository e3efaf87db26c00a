import { loudspeakerById } from './loudspeakers.js';
import { distanceBetween } from '../geometry/index.js';
import type { Project, Sweep } from './types.js';

/** Sweeps of the round under way that were taken under other circumstances than those of now, and what has changed. */
export interface Stale {
  text: string;
  sweeps: Sweep[];
}

/** Less than this is how well a stand can be put up again, metres; degrees that move the speed of sound by half a percent. */
const MOVED_M = 0.03;
const WARMER_C = 3;

/**
 * What no longer belongs together with the plan and the rig as they are; nothing where all of it does.
 * @param rig name of the rig that measures now
 */
export function staleSweeps(project: Project, rig: string): Stale[] {
  const { loudspeakers, spots, temperatureC } = project.place;
  const found = new Map<string, Sweep[]>();
  const add = (text: string, sweep: Sweep) => found.set(text, [...(found.get(text) ?? []), sweep]);
  for (const sweep of project.sweeps) {
    if (sweep.stage !== 'as found' || sweep.roundId !== project.roundId || !sweep.conditions) continue;
    const { conditions } = sweep;
    const loudspeaker = loudspeakerById({ loudspeakers }, sweep.loudspeakerId)!;
    const spot = spots.find((s) => s.id === sweep.spotId)!;
    const movedM = distanceBetween(conditions.loudspeaker, loudspeaker.position);
    if (movedM > MOVED_M) add(`${loudspeaker.name} was moved by ${movedM.toFixed(2)} m since`, sweep);
    else if (conditions.output !== loudspeaker.output)
      add(
        `${loudspeaker.name} was on output ${conditions.output} then and is on ${loudspeaker.output} now`,
        sweep,
      );
    else if (distanceBetween(conditions.spot, spot.position) > MOVED_M)
      add(`${spot.name} was moved since`, sweep);
    else if (conditions.rigName !== rig)
      add(`they came through ${conditions.rigName}, the rig is ${rig} now`, sweep);
    else if (Math.abs(conditions.temperatureC - temperatureC) > WARMER_C)
      add(`it was ${conditions.temperatureC} °C then and is ${temperatureC} °C now`, sweep);
  }
  return [...found].map(([text, sweeps]) => ({ text, sweeps }));
}
