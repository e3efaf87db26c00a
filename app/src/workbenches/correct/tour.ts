import { spanWeight, type ChannelDesign } from '@pebble-hall/core/correct';
import { smoothLevels } from '@pebble-hall/core/signal';

/** Where a channel misses its target most, as left (predicted), 1/6 octave, within the span. */
export interface Miss {
  /** dB over (or under) the target */
  db: number;
  at: number;
  /** why it is left so, where the design knows */
  reason: string | null;
}

const REASONS = {
  moves: 'differs from spot to spot',
  'not minimum phase': 'not of minimum phase',
  'too deep': 'more than the boost limit',
  'cut limit': 'more than the cut limit',
} as const;

/** The largest miss of a channel; level differences over the whole span are no miss. */
export function largestMiss(
  { predicted, targetDb, span, leftAlone }: ChannelDesign,
  grid: Float64Array,
): Miss {
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
  return { db: smooth[worst]! - targetDb[worst]!, at, reason: why ? REASONS[why.reason] : null };
}
