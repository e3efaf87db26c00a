import {
  findRollOffs,
  keptEnds,
  ownSpan,
  placeOverSpan,
  rollOffDb,
  targetShape,
} from '@pebble-hall/core/correct';
import { targetOf, variantOf, type Project } from '@pebble-hall/core/project';
import { nearestIndex } from '../../charts/chartMath';

export type NormaliseAt = 'as it is' | 'frequency' | 'own band' | 'band' | 'target';

/**
 * Level to take off a curve so that it is 0 dB where wanted.
 * @param band whose mean is wanted; the lower end alone for a frequency
 */
export function normalised(
  frequency: Float64Array,
  averageDb: Float64Array,
  band: { from: number; to: number },
  at: NormaliseAt,
): number {
  if (at === 'as it is' || at === 'target') return 0;
  if (at === 'frequency') return averageDb[nearestIndex(frequency, band.from)]!;
  const inside = averageDb.filter(
    (v, i) => frequency[i]! >= band.from && frequency[i]! <= band.to && Number.isFinite(v),
  );
  return inside.reduce((a, b) => a + b, 0) / inside.length;
}

/** The target of a channel on the grid, at the level where Correct places it by itself or by hand. */
export function placedTarget(
  frequency: Float64Array,
  averageDb: Float64Array,
  project: Project,
  id: string,
): Float64Array {
  const { correction } = variantOf(project);
  const target = targetOf(project, correction, id);
  const ends = rollOffDb(keptEnds(findRollOffs(frequency, averageDb), target), frequency);
  const shape = targetShape(target, frequency).map((v, i) => v + ends[i]!);
  const own = ownSpan(frequency, averageDb);
  const span = correction.spans[id] ?? own;
  const offset = correction.targetLevels[id] ?? placeOverSpan(frequency, averageDb, shape, span, own);
  return shape.map((v) => v + offset);
}
