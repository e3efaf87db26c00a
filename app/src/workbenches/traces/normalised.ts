import { nearestIndex } from '../../parts/chartMath';

export type NormaliseAt = 'as it is' | '1 kHz' | 'own band';

/** Level to take off a curve so that it is 0 dB where wanted. */
export function normalised(
  frequency: Float64Array,
  averageDb: Float64Array,
  band: { from: number; to: number },
  at: NormaliseAt,
): number {
  if (at === 'as it is') return 0;
  if (at === '1 kHz') return averageDb[nearestIndex(frequency, 1000)]!;
  const inside = averageDb.filter(
    (v, i) => frequency[i]! >= band.from && frequency[i]! <= band.to && Number.isFinite(v),
  );
  return inside.reduce((a, b) => a + b, 0) / inside.length;
}
