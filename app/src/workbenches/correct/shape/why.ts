import type { ChannelDesign } from '@pebble-hall/core/correct';
import { formatDb, formatHz, signedDb } from '../../../charts/chartMath';
import { limitAt } from './limitAt';

/** All that a design knows of one frequency. */
export interface Why {
  frequency: number;
  rows: [string, string][];
  /** what limited it, in one sentence */
  sentence: string;
}

const NOTHING_DB = 0.3;

/** Why the design does what it does at a point of the grid. */
export function whyAt(design: ChannelDesign, grid: Float64Array, i: number): Why {
  const {
    found,
    predicted,
    targetDb,
    wantedDb,
    gainDb,
    strengthAt,
    standardDeviationDb,
    nonMinimumPhase,
    span,
    room,
  } = design;
  const wanted = wantedDb[i]!;
  return {
    frequency: grid[i]!,
    rows: [
      ['As found, average', formatDb(found.averageDb[i]!)],
      ['Seats', `${signedDb(found.lowDb[i]!)} to ${formatDb(found.highDb[i]!)}`],
      ['Spots deviate by', `${standardDeviationDb[i]!.toFixed(1)} dB`],
      ['Not of minimum phase', `${Math.round(100 * nonMinimumPhase[i]!)} % of spots`],
      ['Target', formatDb(targetDb[i]!)],
      ['Wanted', formatDb(wanted)],
      ['Filter', formatDb(gainDb[i]!)],
      ['As left (predicted)', formatDb(predicted.averageDb[i]!)],
    ],
    sentence: sentenceOf(),
  };
  function sentenceOf(): string {
    const done = gainDb[i]! > NOTHING_DB ? 'filled only a little' : 'not filled';
    switch (limitAt(design, grid, i)) {
      case 'outside the span':
        return `Outside the span (${formatHz(span.from)} to ${formatHz(span.to)}): nothing is done here.`;
      case 'nothing':
        return 'The filter does what is wanted.';
      case 'strength':
        return `Strength is ${Math.round(100 * strengthAt[i]!)} % here: the rest is left on purpose.`;
      case 'soft end':
        return 'The soft end of the span: the filter fades to nothing here.';
      case 'not minimum phase':
        return `A dip that is not of minimum phase at most spots is ${done}: raising it would lengthen the sound, not fill it.`;
      case 'dip moves':
        return `A dip that differs from spot to spot is ${done}: what helps one seat would hurt another.`;
      case 'boost limit':
        return `More is wanted than the ${room.boostDb[i]!.toFixed(1)} dB of boost that are allowed.`;
      case 'gentle boost':
        return 'Boost is given gently: a dip’s regularised inverse stays below what is wanted.';
      case 'cut limit':
        return `More is wanted than the ${room.cutDb[i]!.toFixed(1)} dB of cut that are allowed.`;
      case 'peak moves':
        return 'Seats do not share this peak: it is cut less than the average asks for.';
      case 'finer':
        return 'Finer than the design resolves: it follows the smoothed average.';
    }
  }
}
