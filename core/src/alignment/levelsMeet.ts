import { needAscending } from '../limits/index.js';
import { dbOfGain, powerOf, smoothPower, type ComplexTrace } from '../signal/index.js';
import { levelsApart } from './pairReading.js';

/** A source's own band reaches this far below its loudest part, dB. */
const OWN_DB = 10;
/** What is loudest is read over a third of an octave, no single resonance. */
const LOUDEST_FRACTION = 3;
/** Two sources meet within so many octaves to either side of where they are as loud. */
const MEETS_OCTAVES = 1;

/**
 * The gain that lays a source on a target: the median of its distances from it over the source's own band, which reaches 10 dB below
 * its loudest third of an octave, so that neither slopes nor dips weigh in.
 * @param targetDb on the frequencies of the source; NaN where it says nothing
 * @returns dB; null where the two share no frequencies
 */
export function gainOntoTarget(source: ComplexTrace, targetDb: Float64Array): number | null {
  const { frequency } = source;
  needAscending('gainOntoTarget', 'frequencies', frequency, 0);
  const power = powerOf(source);
  const known = [...frequency.keys()].filter((n) => power[n]! > 0 && Number.isFinite(targetDb[n]!));
  if (known.length < 2) return null;
  const f = Float64Array.from(known, (n) => frequency[n]!);
  const smooth = smoothPower(
    f,
    Float64Array.from(known, (n) => power[n]!),
    LOUDEST_FRACTION,
    f,
  );
  const least = Math.max(...smooth) * 10 ** (-OWN_DB / 10);
  const apart = known
    .flatMap((n, i) => (smooth[i]! < least ? [] : [targetDb[n]! - 10 * Math.log10(power[n]!)]))
    .sort((a, b) => a - b);
  const middle = apart.length / 2;
  return (apart[Math.floor(middle)]! + apart[Math.ceil(middle) - 1]!) / 2;
}

/** How two sources meet in level, were they in phase: whether they leave a gap or overlap too far. */
export interface Meeting {
  /** where both are as loud, Hz */
  hz: number;
  /** the sum in phase over the target, where it is lowest and where it is highest within an octave of that, dB and Hz */
  lowest: { db: number; hz: number };
  highest: { db: number; hz: number };
}

/** @param targetDb on the same frequencies @returns null where neither gives way to the other, or there is no target near */
export function readMeeting(
  first: ComplexTrace,
  second: ComplexTrace,
  targetDb: Float64Array,
): Meeting | null {
  const { frequency } = first;
  const apart = levelsApart(first, second);
  const hz = crossing(frequency, apart, first);
  if (hz === null) return null;
  const reach = 2 ** MEETS_OCTAVES;
  let lowest: Meeting['lowest'] | null = null;
  let highest: Meeting['highest'] | null = null;
  frequency.forEach((f, n) => {
    if (f < hz / reach || f > hz * reach) return;
    const sum = Math.hypot(first.re[n]!, first.im[n]!) + Math.hypot(second.re[n]!, second.im[n]!);
    const db = dbOfGain(sum) - targetDb[n]!;
    if (!Number.isFinite(db)) return;
    if (!lowest || db < lowest.db) lowest = { db, hz: f };
    if (!highest || db > highest.db) highest = { db, hz: f };
  });
  return lowest && highest && { hz, lowest, highest };
}

/** Where one becomes louder than the other: of several such places the loudest. */
function crossing(frequency: Float64Array, apart: Float64Array, first: ComplexTrace): number | null {
  let [best, level] = [null as number | null, 0];
  for (let n = 1; n < apart.length; n++) {
    if (!(Math.sign(apart[n]!) * Math.sign(apart[n - 1]!) <= 0)) continue;
    const here = Math.hypot(first.re[n]!, first.im[n]!);
    if (best !== null && here <= level) continue;
    const share = apart[n] === apart[n - 1] ? 0 : apart[n - 1]! / (apart[n - 1]! - apart[n]!);
    [best, level] = [frequency[n - 1]! * (frequency[n]! / frequency[n - 1]!) ** share, here];
  }
  return best;
}
