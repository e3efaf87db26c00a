import { needWithin } from '../limits/index.js';
import type { Air } from './air.js';
import { OCTAVES, type PerOctave } from './octaves.js';
import { roomStatistics } from './statistics.js';

/** No surface swallows more than this. */
const MOST = 0.99;
const HALVINGS = 50;

/** What surfaces swallow, so that it rings as long as wanted. */
export interface Tuned {
  /** of each surface */
  absorption: number[][];
  /** what it then is after Eyring, seconds per octave */
  eyring: number[];
}

/**
 * Makes all surfaces swallow more, or less, by the same factor in an octave, until Eyring's time is the one wanted there.
 * @param wantedS per octave; NaN leaves an octave as it is
 * @param within the factor goes up to 1 + within, and down to its inverse: how wrong the shares may have been
 */
export function tuneAbsorption(
  surfaces: readonly { area: number; absorption: PerOctave }[],
  volume: number,
  air: Air,
  wantedS: PerOctave,
  within: number,
): Tuned {
  needWithin('tuneAbsorption', 'how wrong shares may be', within, 0, 10);
  const scaled = (factors: readonly number[]) =>
    surfaces.map((s) => ({
      ...s,
      absorption: s.absorption.map((a, o) => Math.min(Math.max(MOST, a), factors[o]! * a)),
    }));
  const times = (factors: readonly number[]) => roomStatistics(scaled(factors), volume, air).eyring;
  const low = OCTAVES.map(() => 1 / (1 + within));
  const high = OCTAVES.map(() => 1 + within);
  for (let i = 0; i < HALVINGS; i++) {
    const middle = low.map((l, o) => Math.sqrt(l * high[o]!));
    const now = times(middle);
    middle.forEach((m, o) => {
      // more of it rings shorter
      if (now[o]! > wantedS[o]!) low[o] = m;
      else high[o] = m;
    });
  }
  const factors = low.map((l, o) => (Number.isFinite(wantedS[o]!) ? Math.sqrt(l * high[o]!) : 1));
  const tuned = scaled(factors);
  return { absorption: tuned.map((s) => [...s.absorption]), eyring: times(factors) };
}
