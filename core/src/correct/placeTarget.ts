import { smoothLevels } from '../signal/index.js';
import { isNarrow, spanWeight, type Span } from './span.js';

/** This share of the span (in octaves) lies below the target when it is placed by itself. */
const BELOW = 0.05;

/**
 * Level at which a target's shape meets a response: a twentieth of the span then lies below it and is raised, the rest is
 * cut. Lower than their mean, because peaks can be cut to the target at every seat, while dips can hardly be filled. The
 * soft ends of a narrow span do not count: they are much of it, there a subwoofer rolls off, and little is corrected.
 * @param smoothDb the average smoothed by 1/6 octave, where it is known already
 * @returns dB to add to the shape
 * @throws RangeError when no point with a finite level lies within the span
 */
export function placeTarget(
  frequency: Float64Array,
  averageDb: Float64Array,
  shapeDb: Float64Array,
  span: Span,
  smoothDb: Float64Array = smoothLevels(frequency, averageDb, 6),
): number {
  const least = isNarrow(span) ? 0.5 : 0;
  const weight = spanWeight(frequency, span);
  const above = smoothDb
    .map((level, i) => level - shapeDb[i]!)
    .filter((level, i) => weight[i]! > least && Number.isFinite(level))
    .sort();
  if (above.length === 0) throw new RangeError(`placeTarget: no level within ${span.from} to ${span.to} Hz`);
  return above[Math.floor(BELOW * above.length)]!;
}
