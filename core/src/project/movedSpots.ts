import { speedOfSound } from '../room/index.js';
import { median } from '../signal/index.js';
import { movedMicrophone } from '../spots/index.js';
import { fittedOf, sweepOf } from './progress.js';
import { wayM } from './travel.js';
import type { Project, Spot, Sweep } from './types.js';

/** A spot at which the microphone was moved between two channels. */
export interface MovedSpot {
  spot: Spot;
  /** sweeps after the move, in the order taken */
  sweeps: Sweep[];
  byM: number;
}

/**
 * Spots of the round under way whose arrival times no longer fit one point. What each channel adds by itself (the
 * processor's delay, an error of the plan) is known from the other spots, so three spots are needed. Subwoofers do not
 * count: their onset is too soft.
 */
export function movedSpots(project: Project): MovedSpot[] {
  const { spots, temperatureC } = project.place;
  const c = speedOfSound(temperatureC);
  const channels = fittedOf(project).filter((l) => l.role === 'full range');
  const heard = spots.flatMap((spot) =>
    channels.flatMap((loudspeaker) => {
      const sweep = sweepOf(project, spot.id, loudspeaker.id);
      if (!sweep || sweep.verdict.state === 'failed' || sweep.arrivalS === null) return [];
      const extraM = sweep.arrivalS * c - wayM(project.place, loudspeaker, spot.position);
      return [{ spot, loudspeaker, sweep, extraM }];
    }),
  );
  return spots.flatMap((spot) => {
    const here = heard.filter((h) => h.spot === spot).sort((a, b) => a.sweep.takenAt - b.sweep.takenAt);
    const ways = here.flatMap(({ loudspeaker, sweep }) => {
      const others = heard
        .filter((h) => h.spot !== spot && h.loudspeaker === loudspeaker)
        .map((h) => h.extraM);
      if (others.length < 2) return [];
      return [{ loudspeaker: loudspeaker.position, wayM: sweep.arrivalS! * c - median(others), sweep }];
    });
    const moved = movedMicrophone(ways, spot.position);
    // loudspeakers all in one place tell a distance, and no place
    return moved && Number.isFinite(moved.byM)
      ? [{ spot, byM: moved.byM, sweeps: ways.slice(moved.before).map((w) => w.sweep) }]
      : [];
  });
}
