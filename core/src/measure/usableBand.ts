import { smoothLevels } from '../signal/index.js';

/**
 * The band a loudspeaker really plays in: around the loudest octave, as far as the level smoothed over 1/1 octave stays
 * within `dropDb` of the median of what lies within 12 dB of the loudest.
 * @param frequency log-spaced grid, Hz
 * @returns edges in Hz, grid points; null when no level is finite
 */
export function usableBand(
  frequency: Float64Array,
  levels: Float64Array,
  dropDb = 5,
): { from: number; to: number } | null {
  const smooth = smoothLevels(frequency, levels, 1);
  let top = -1;
  for (let i = 0; i < smooth.length; i++) {
    if (Number.isFinite(smooth[i]!) && (top < 0 || smooth[i]! > smooth[top]!)) top = i;
  }
  if (top < 0) return null;
  const within = smooth.filter((level) => level > smooth[top]! - 12).sort();
  const reference = within[within.length >> 1]!;
  let [low, high] = [top, top];
  while (low > 0 && smooth[low - 1]! > reference - dropDb) low--;
  while (high < smooth.length - 1 && smooth[high + 1]! > reference - dropDb) high++;
  return { from: frequency[low]!, to: frequency[high]! };
}
