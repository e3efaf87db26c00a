import { needWithin } from '../limits/index.js';
/** A first sound is this soft, and no later one rises by more than this over what was proven. */
export const START_DBFS = -60;
export const MOST_STEP_DB = 12;

/**
 * Levels to play before a test level, so that nothing jumps: from what is proven (or the start) upwards in equal steps of at
 * most 12 dB. Empty when the level is within one step.
 * @param provenDbfs highest level at which this channel has sounded and was heard to be right; null when never
 */
export function levelSteps(provenDbfs: number | null, levelDbfs: number): number[] {
  if (!Number.isFinite(levelDbfs)) throw new RangeError(`levelSteps: level must be finite, got ${levelDbfs}`);
  if (provenDbfs !== null) needWithin('levelSteps', 'proven level in dBFS', provenDbfs, -200, 0);
  const from = provenDbfs ?? START_DBFS - MOST_STEP_DB;
  const count = Math.ceil((levelDbfs - from) / MOST_STEP_DB - 1e-9);
  return Array.from(
    { length: Math.max(0, count - 1) },
    (_, i) => from + ((i + 1) * (levelDbfs - from)) / count,
  );
}
