import { spanWeight, type ChannelDesign } from '@pebble-hall/core/correct';
import { smoothLevels } from '@pebble-hall/core/signal';
import { formatDb, formatHz } from '../../../charts/chartMath';
import { LIMIT_WORDS, limitAt, type Limit } from './limitAt';

/** Where a channel misses its target most, as left (predicted), 1/6 octave, within the span. */
export interface Miss {
  /** dB over (or under) the target */
  db: number;
  at: number;
  /** why it is left so, where the design knows */
  reason: string | null;
  /** whether it is one of the places that are told as left alone anyway */
  leftAlone: boolean;
}

/** What was left alone on purpose is told so, also where the miss lies beside its deepest place. */
const LEFT_ALONE: Record<ChannelDesign['leftAlone'][number]['reason'], Limit> = {
  moves: 'dip moves',
  'not minimum phase': 'not minimum phase',
  'too deep': 'boost limit',
  'cut limit': 'cut limit',
};

const known = new WeakMap<ChannelDesign, { grid: Float64Array; miss: Miss }>();

/** `largestMiss`, worked out once for a design: under a moving hand one design is new and the others are not. */
export function missOf(design: ChannelDesign, grid: Float64Array): Miss {
  const kept = known.get(design);
  if (kept?.grid === grid) return kept.miss;
  const miss = largestMiss(design, grid);
  known.set(design, { grid, miss });
  return miss;
}

/** The largest miss of a channel; level differences over the whole span are no miss. */
export function largestMiss(design: ChannelDesign, grid: Float64Array): Miss {
  const { predicted, targetDb, span, leftAlone } = design;
  const smooth = smoothLevels(grid, predicted.averageDb, 6);
  const weight = spanWeight(grid, span);
  let worst = -1;
  grid.forEach((_, i) => {
    if (!(weight[i]! > 0.5)) return; // the soft ends are no miss
    if (worst < 0 || Math.abs(smooth[i]! - targetDb[i]!) > Math.abs(smooth[worst]! - targetDb[worst]!))
      worst = i;
  });
  const at = grid[worst]!;
  const why = leftAlone.find((l) => at >= l.from * 0.97 && at <= l.to * 1.03);
  const limit = why ? LEFT_ALONE[why.reason] : limitAt(design, grid, worst);
  return {
    db: smooth[worst]! - targetDb[worst]!,
    at,
    reason: LIMIT_WORDS[limit],
    leftAlone: why !== undefined,
  };
}

/** The mark beside a channel, in words; null where it has none, or what was left alone says it already. */
export const missNote = ({ db, at, reason, leftAlone }: Miss, overDb: number): string | null =>
  Math.abs(db) > overDb && !leftAlone
    ? `Misses the target most at ${formatHz(at)}, by ${formatDb(db)}${reason ? `: ${reason}` : ''}.`
    : null;
