import { averagePower } from '../correct/index.js';
import { smoothLevels } from '../signal/index.js';

/** How settled an average over spots is. */
export interface AverageMovement {
  /** RMS over the band by which the average moves when one spot is left out, dB: mean over the spots, and the most */
  meanDb: number;
  mostDb: number;
  /** index of the spot that moves it most */
  mostBy: number;
}

/**
 * How far a power average still moves when a spot is left out (leave-one-out), its level taken off, 1/6 octave.
 * @param powers one array per spot on the log grid `frequency`
 * @returns null for fewer than two spots, where nothing can be said
 */
export function averageMovement(
  frequency: Float64Array,
  powers: Float64Array[],
  { from, to }: { from: number; to: number },
): AverageMovement | null {
  if (powers.length < 2) return null;
  const curve = (list: Float64Array[]) => smoothLevels(frequency, averagePower(frequency, list).averageDb, 6);
  const all = curve(powers);
  const moved = powers.map((_, left) => {
    const without = curve(powers.filter((__, i) => i !== left));
    const off: number[] = [];
    frequency.forEach((f, i) => {
      if (f >= from && f <= to) off.push(without[i]! - all[i]!);
    });
    const mean = off.reduce((a, b) => a + b, 0) / off.length;
    return Math.sqrt(off.reduce((sum, v) => sum + (v - mean) ** 2, 0) / off.length);
  });
  const mostDb = Math.max(...moved);
  return { meanDb: moved.reduce((a, b) => a + b, 0) / moved.length, mostDb, mostBy: moved.indexOf(mostDb) };
}
