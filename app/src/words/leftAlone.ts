import type { LeftAlone } from '@pebble-hall/core/correct';
import { formatDb, formatHz } from '../charts/chartMath';

/** What a filter does to a level: "cut by 8.4 dB", "boosted by 3.0 dB". */
export const changeWords = (gainDb: number): string =>
  Math.abs(gainDb) < 0.05
    ? 'not changed'
    : `${gainDb < 0 ? 'cut' : 'boosted'} by ${Math.abs(gainDb).toFixed(1)} dB`;

/** What was left alone, and why, in words. */
export function readLeftAlone(
  { at, offDb, gainDb, wantedDb, reason, standardDeviationDb, nonMinimumPhase }: LeftAlone,
  maxBoostDb: number,
  maxCutDb: number,
): { text: string; small: string } {
  const done = Math.abs(gainDb) < 0.5 ? 'left alone' : `${changeWords(gainDb)} only`;
  const off = formatDb(offDb);
  switch (reason) {
    case 'moves':
      return {
        text: `Dip at ${formatHz(at)}, ${off}, differs from spot to spot: ${done}.`,
        small: `spots deviate by ${standardDeviationDb.toFixed(1)} dB; filling it would hurt other seats`,
      };
    case 'not minimum phase':
      return {
        text: `Dip at ${formatHz(at)}, ${off}, is not of minimum phase: ${done}.`,
        small: `at ${Math.round(100 * nonMinimumPhase)} % of the spots a later sound cancels the first; a filter would raise both`,
      };
    case 'too deep':
      return {
        text: `Dip at ${formatHz(at)}, ${off}, is shared by the spots: ${done}.`,
        small:
          wantedDb > maxBoostDb
            ? `filling it takes ${formatDb(wantedDb)}, at most ${formatDb(maxBoostDb)} is allowed`
            : `filling it takes ${formatDb(wantedDb)}; deep dips are filled in part only, as more costs headroom and helps few seats`,
      };
    case 'cut limit':
      return {
        text: `Peak at ${formatHz(at)}, ${off}: ${done}.`,
        small: `at most ${formatDb(-maxCutDb)} is allowed`,
      };
  }
}
