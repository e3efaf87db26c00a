import type { InputLevel } from './inputMeter.js';
import { ratioOf } from './ratioOf.js';
import type { TransferCurve } from './transferFunction.js';

/** What there is to do about a level before anything is compared. */
export type GainStep =
  | { kind: 'nothing'; channel: number }
  /** the input is at its end: lower by at least so much */
  | { kind: 'clipped' | 'near its end'; channel: number; byDb: number }
  /** what comes back is not what went in, long before the input's end */
  | { kind: 'distorts'; channel: number; restDb: number }
  | { kind: 'weak'; channel: number; byDb: number }
  /** the channel is lower than the other one: raise it by so much */
  | { kind: 'apart'; channel: number; byDb: number };

/** Peaks stay so far below full scale, dB. */
const HEADROOM_DB = 6;
/** Below this, RMS re full scale, the noise of an input counts. */
const WEAK_DB = -45;
const NOTHING_DB = -75;
/** Channels that are to be compared lie within this, dB. */
const ALIKE_DB = 0.3;
/** Distortion and noise together, re the signal: above this a device at a working level is overdriven, dB. */
const RESTLESS_DB = -45;

/**
 * What to turn first, so that nothing is overloaded, nothing is lost in noise, and both channels come at one level.
 * @param levels of the inputs that the channels come back on, in their order
 * @param curves of the channels against what is played; null for one that is not known
 */
export function gainSteps(
  levels: readonly InputLevel[],
  curves: readonly (TransferCurve | null)[],
): GainStep[] {
  const steps: GainStep[] = [];
  levels.forEach(({ levelDb, peakDb, clipped }, channel) => {
    if (!(levelDb > NOTHING_DB)) steps.push({ kind: 'nothing', channel });
    else if (clipped > 0 && peakDb > -0.1) steps.push({ kind: 'clipped', channel, byDb: HEADROOM_DB });
    else if (peakDb > -HEADROOM_DB)
      steps.push({ kind: 'near its end', channel, byDb: Math.max(0.5, peakDb + HEADROOM_DB) });
    else if (levelDb < WEAK_DB)
      steps.push({ kind: 'weak', channel, byDb: Math.min(20, WEAK_DB + 15 - levelDb) });
    const curve = curves[channel];
    const restDb = curve && levelDb > WEAK_DB ? restOf(curve) : null;
    if (restDb !== null && restDb > RESTLESS_DB) steps.push({ kind: 'distorts', channel, restDb });
  });
  if (steps.some((s) => s.kind !== 'weak')) return steps;
  const [a, b] = curves;
  const apart = a && b ? channelsApart(a, b) : null;
  if (apart && Math.abs(apart.meanDb) > ALIKE_DB)
    steps.push({ kind: 'apart', channel: apart.meanDb < 0 ? 1 : 0, byDb: Math.abs(apart.meanDb) });
  return steps;
}

/** What of a channel does not come from its reference, re what does, dB: by its coherence in the middle of the band. */
function restOf({ frequency, coherence }: TransferCurve): number | null {
  const known = [...coherence].filter(
    (c, n) => frequency[n]! >= 200 && frequency[n]! <= 5000 && Number.isFinite(c),
  );
  if (known.length < 10) return null;
  known.sort((a, b) => a - b);
  const middle = Math.min(1, known[known.length >> 1]!);
  return middle > 0 ? 10 * Math.log10((1 - middle) / middle) : 0;
}

/** How two channels of a device differ. */
export interface ChannelsApart {
  /** second over first; mean over log frequency, dB */
  meanDb: number;
  /** largest difference from it, dB, and where, Hz */
  mostDb: number;
  mostDbAt: number;
  /** largest difference in phase, degrees, and where, Hz */
  mostDeg: number;
  mostDegAt: number;
}

const BAND = { from: 25, to: 18_000 };
const SURE = 0.95;

/** @returns null where both are coherent hardly anywhere between 25 Hz and 18 kHz */
export function channelsApart(first: TransferCurve, second: TransferCurve): ChannelsApart | null {
  const { levelDb, phaseDeg } = ratioOf(second, first);
  const known = [...first.frequency.keys()].filter(
    (n) =>
      first.frequency[n]! >= BAND.from &&
      first.frequency[n]! <= BAND.to &&
      first.coherence[n]! >= SURE &&
      second.coherence[n]! >= SURE &&
      Number.isFinite(levelDb[n]!),
  );
  if (known.length < 24) return null;
  const meanDb = known.reduce((sum, n) => sum + levelDb[n]!, 0) / known.length;
  const most = (sizeAt: (n: number) => number) => known.reduce((a, b) => (sizeAt(b) > sizeAt(a) ? b : a));
  const db = most((n) => Math.abs(levelDb[n]! - meanDb));
  const deg = most((n) => Math.abs(phaseDeg[n]!));
  return {
    meanDb,
    mostDb: levelDb[db]! - meanDb,
    mostDbAt: first.frequency[db]!,
    mostDeg: phaseDeg[deg]!,
    mostDegAt: first.frequency[deg]!,
  };
}
