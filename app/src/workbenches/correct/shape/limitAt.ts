import { MOVES_DB, spanWeight, NON_MINIMUM_PHASE_SHARE, type ChannelDesign } from '@pebble-hall/core/correct';

/** What keeps a design from doing at one frequency all that is wanted there. */
export type Limit =
  | 'outside the span'
  | 'nothing'
  | 'strength'
  | 'soft end'
  | 'not minimum phase'
  | 'dip moves'
  | 'boost limit'
  | 'gentle boost'
  | 'cut limit'
  | 'peak moves'
  | 'finer';

/** Less than this, dB, is missing where nothing limits. */
const MISSING_DB = 1;
/** Below this weight the soft end of a span is what limits. */
const SOFT = 0.7;

/** What limits a design at a point of the grid; the first that applies, in the order in which the design applies them. */
export function limitAt(
  { wantedDb, fullDb, gainDb, strengthAt, standardDeviationDb, nonMinimumPhase, span, room }: ChannelDesign,
  grid: Float64Array,
  i: number,
): Limit {
  const weight = spanWeight(grid, span)[i]!;
  const wanted = wantedDb[i]!;
  if (weight === 0) return 'outside the span';
  if (Math.abs(wanted - gainDb[i]!) < MISSING_DB) return 'nothing';
  if (strengthAt[i]! < 1 && Math.abs(wanted - fullDb[i]!) < MISSING_DB) return 'strength';
  if (weight < SOFT) return 'soft end';
  const moves = standardDeviationDb[i]! > MOVES_DB;
  if (wanted > 0) {
    if (nonMinimumPhase[i]! >= NON_MINIMUM_PHASE_SHARE) return 'not minimum phase';
    if (moves) return 'dip moves';
    return wanted > room.boostDb[i]! ? 'boost limit' : 'gentle boost';
  }
  if (-wanted > room.cutDb[i]!) return 'cut limit';
  return moves ? 'peak moves' : 'finer';
}

/** A limit in a few words, beside a miss; null where there is nothing to say. */
export const LIMIT_WORDS: Record<Limit, string | null> = {
  'outside the span': null,
  nothing: null,
  strength: 'not at full strength there',
  'soft end': 'the soft end of the span',
  'not minimum phase': 'not of minimum phase',
  'dip moves': 'differs from spot to spot',
  'boost limit': 'more than the boost limit',
  'gentle boost': 'boost is given gently',
  'cut limit': 'more than the cut limit',
  'peak moves': 'seats do not share this peak',
  finer: 'finer than the design resolves',
};
