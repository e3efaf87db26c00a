import { speedOfSound } from '../room/index.js';
import { median } from '../signal/index.js';
import { fittedOf, sweepOf } from './progress.js';
import { wayM } from './travel.js';
import type { Project, Sweep } from './types.js';

/** A sweep that is unlike those of the same loudspeaker at the other spots. */
export interface OddSweep {
  sweep: Sweep;
  kind: 'quieter' | 'later';
  /** dB below, or ms after, what the other spots let expect */
  by: number;
}

/** Seats of one audience differ by less. */
const QUIETER_DB = 12;
const LATER_MS = 3;

/**
 * Sweeps of the round under way that are much quieter or later than at the other spots (level per metre of distance and
 * arrival against the way from the plan): a blocked loudspeaker, a stand at the wrong spot, a gain that was turned.
 */
export function oddSweeps(project: Project): OddSweep[] {
  const { spots, temperatureC } = project.place;
  const c = speedOfSound(temperatureC);
  const found: OddSweep[] = [];
  for (const loudspeaker of fittedOf(project)) {
    const list = spots.flatMap((spot) => {
      const sweep = sweepOf(project, spot.id, loudspeaker.id);
      const levelDb = sweep && levelInBand(sweep);
      if (!sweep || sweep.verdict.state === 'failed' || levelDb === null || levelDb === undefined) return [];
      const travelS = wayM(project.place, loudspeaker, spot.position) / c;
      return [{ sweep, levelDb, lateMs: sweep.arrivalS === null ? null : 1000 * (sweep.arrivalS - travelS) }];
    });
    if (list.length < 3) continue;
    for (const one of list) {
      const others = list.filter((o) => o !== one);
      const quieter = median(others.map((o) => o.levelDb)) - one.levelDb;
      if (quieter > QUIETER_DB) found.push({ sweep: one.sweep, kind: 'quieter', by: quieter });
      // the onset of a subwoofer is too soft to tell
      if (loudspeaker.role === 'subwoofer' || one.lateMs === null) continue;
      const later = one.lateMs - median(others.flatMap((o) => o.lateMs ?? []));
      if (later > LATER_MS) found.push({ sweep: one.sweep, kind: 'later', by: later });
    }
  }
  return found;
}

/** Mean level of the third octaves of its own band against what was played, dB; null where nothing was heard. */
function levelInBand({ margins, verdict: { band }, levelDbfs }: Sweep): number | null {
  const own = margins.filter(
    (m) => band && m.centre >= band.from * 0.99 && m.centre <= band.to * 1.01 && Number.isFinite(m.signalDb),
  );
  return own.length === 0 ? null : own.reduce((sum, m) => sum + m.signalDb, 0) / own.length - levelDbfs;
}
