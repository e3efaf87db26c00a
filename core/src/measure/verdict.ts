import type { Arrival } from './arrival.js';
import type { Clipping } from './clipping.js';
import type { Disturbance } from './disturbanceFound.js';
import type { BandMargin } from './signalToNoise.js';

/** Why a sweep is not simply good; the interface makes sentences of these. */
export type Reason =
  | { kind: 'silent'; snrDb: number }
  | { kind: 'clipped'; count: number; atS: number }
  | { kind: 'near noise'; snrDb: number; aimDb: number }
  | { kind: 'disturbed'; disturbance: Disturbance }
  | { kind: 'no loopback' }
  | { kind: 'no click' }
  | { kind: 'dropouts'; count: number };

export interface Verdict {
  state: 'good' | 'doubtful' | 'failed';
  reasons: Reason[];
  /** median margin over noise of the third octaves in the channel's own band, dB */
  snrDb: number;
  /** that band, Hz */
  band: { from: number; to: number } | null;
}

/** The margin to aim for, below which a sweep is doubtful, and below which nothing arrived. */
export const AIM_DB = 30;
export const DOUBTFUL_DB = 20;
export const SILENT_DB = 10;

export interface SweepEvidence {
  margins: BandMargin[];
  arrival: Arrival | null;
  clipping: Clipping | null;
  disturbances: Disturbance[];
  loopbackFound: boolean;
}

/**
 * The channel's own band by its recorded level, and its median margin there: third octaves around the loudest one, as far
 * as the level stays within 15 dB of it (one room null between does not end it).
 */
export function ownMargin(margins: BandMargin[]): {
  snrDb: number;
  band: { from: number; to: number } | null;
} {
  const byLevel = [...margins.keys()]
    .filter((i) => Number.isFinite(margins[i]!.signalDb))
    .sort((i, k) => margins[k]!.signalDb - margins[i]!.signalDb);
  const [top] = byLevel;
  if (top === undefined) return { snrDb: -Infinity, band: null };
  const around = (levelDb: number) => {
    const loud = (i: number) => margins[i] !== undefined && margins[i].signalDb > levelDb - 15;
    let [low, high] = [top, top];
    while (loud(low - 1) || loud(low - 2)) low--;
    while (loud(high + 1) || loud(high + 2)) high++;
    const risen = margins.slice(low, high + 1).filter(({ signalDb }) => Number.isFinite(signalDb));
    // one or two bands may rise by chance; what plays fills at least three
    return risen.length >= 3 ? { low, high } : null;
  };
  // a single resonance may stand far above all that a channel plays; then the third-loudest band is the measure
  const third = byLevel[2];
  const found =
    around(margins[top]!.signalDb) ?? (third === undefined ? null : around(margins[third]!.signalDb));
  if (!found) return { snrDb: -Infinity, band: null };
  const { low, high } = found;
  const own = margins
    .slice(low, high + 1)
    .map(({ snrDb }) => snrDb)
    .sort((a, b) => a - b);
  return {
    snrDb: own[own.length >> 1]!,
    band: { from: margins[low]!.centre, to: margins[high]!.centre },
  };
}

/** The third octave of a channel's own band that stands least above the noise; null when it has no band. */
export function weakestBand(
  margins: BandMargin[],
  band: { from: number; to: number } | null,
): BandMargin | null {
  const own = margins.filter(({ centre }) => band && centre >= band.from * 0.99 && centre <= band.to * 1.01);
  return own.length === 0 ? null : own.reduce((a, b) => (b.snrDb < a.snrDb ? b : a));
}

/** Judges one sweep. `failed` wants repeating, `doubtful` can be used with care; both carry their reasons. */
export function judgeSweep({
  margins,
  arrival,
  clipping,
  disturbances,
  loopbackFound,
}: SweepEvidence): Verdict {
  const { snrDb, band } = ownMargin(margins);
  const reasons: Reason[] = [];
  let state: Verdict['state'] = 'good';
  const worse = (to: 'doubtful' | 'failed', reason: Reason) => {
    reasons.push(reason);
    if (state !== 'failed') state = to;
  };
  if (!loopbackFound) worse('failed', { kind: 'no loopback' });
  if (!arrival || !(snrDb >= SILENT_DB)) worse('failed', { kind: 'silent', snrDb });
  else if (snrDb < DOUBTFUL_DB) worse('doubtful', { kind: 'near noise', snrDb, aimDb: AIM_DB });
  if (clipping) worse('failed', { kind: 'clipped', count: clipping.count, atS: clipping.firstAtS });
  for (const disturbance of disturbances) worse('doubtful', { kind: 'disturbed', disturbance });
  return { state, reasons, snrDb, band };
}
