import { MOVES_DB, spanWeight, TURNED_SHARE, type ChannelDesign } from '@pebble-hall/core/correct';
import type { Correction } from '@pebble-hall/core/project';
import { formatDb, formatHz, signedDb } from '../../parts/chartMath';

/** All that a design knows of one frequency. */
export interface Why {
  frequency: number;
  rows: [string, string][];
  /** what limited it, in one sentence */
  sentence: string;
}

const NOTHING_DB = 0.3;

/** Why the design does what it does at a point of the grid. */
export function whyAt(
  design: ChannelDesign,
  grid: Float64Array,
  i: number,
  { maxBoostDb, maxCutDb }: Pick<Correction, 'maxBoostDb' | 'maxCutDb'>,
): Why {
  const { found, predicted, targetDb, wantedDb, fullDb, gainDb, strengthAt, spreadDb, turned, span } = design;
  const weight = spanWeight(grid, span)[i]!;
  const wanted = wantedDb[i]!;
  return {
    frequency: grid[i]!,
    rows: [
      ['As found, average', formatDb(found.averageDb[i]!)],
      ['Seats', `${signedDb(found.lowDb[i]!)} to ${formatDb(found.highDb[i]!)}`],
      ['Spots deviate by', `${spreadDb[i]!.toFixed(1)} dB`],
      ['Not of minimum phase', `${Math.round(100 * turned[i]!)} % of spots`],
      ['Target', formatDb(targetDb[i]!)],
      ['Wanted', formatDb(wanted)],
      ['Filter', formatDb(gainDb[i]!)],
      ['As left (predicted)', formatDb(predicted.averageDb[i]!)],
    ],
    sentence: sentenceOf(),
  };
  function sentenceOf(): string {
    if (weight === 0)
      return `Outside the span (${formatHz(span.from)} to ${formatHz(span.to)}): nothing is done here.`;
    const missing = wanted - gainDb[i]!;
    if (Math.abs(missing) < 1) return 'The filter does what is wanted.';
    if (strengthAt[i]! < 1 && Math.abs(wanted - fullDb[i]!) < 1)
      return `Strength is ${Math.round(100 * strengthAt[i]!)} % here: the rest is left on purpose.`;
    if (weight < 0.7) return 'The soft end of the span: the filter fades to nothing here.';
    if (wanted > 0) {
      const done = gainDb[i]! > NOTHING_DB ? 'filled only a little' : 'not filled';
      if (turned[i]! >= TURNED_SHARE)
        return `A dip that is not of minimum phase at most spots is ${done}: raising it would lengthen the sound, not fill it.`;
      if (spreadDb[i]! > MOVES_DB)
        return `A dip that differs from spot to spot is ${done}: what helps one seat would hurt another.`;
      if (wanted > maxBoostDb)
        return `More is wanted than the ${maxBoostDb.toFixed(1)} dB of boost that are allowed.`;
      return 'Boost is given gently: a dip’s regularised inverse stays below what is wanted.';
    }
    if (-wanted > maxCutDb)
      return `More is wanted than the ${maxCutDb.toFixed(1)} dB of cut that are allowed.`;
    if (spreadDb[i]! > MOVES_DB)
      return 'Seats do not share this peak: it is cut less than the average asks for.';
    return 'Finer than the design resolves: it follows the smoothed average.';
  }
}
