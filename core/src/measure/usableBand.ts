import { smoothLevels } from '../signal/index.js';

/** A room's dip up to this wide, in octaves, does not end a loudspeaker's band. */
const WIDEST_DIP = 0.5;

/**
 * The band a loudspeaker really plays in: around the loudest third of an octave, outwards as long as the level (1/3 octave)
 * stays within `dropDb` of the median of what lies within 12 dB of the loudest; dips narrower than half an octave are
 * passed over.
 * @param frequency log-spaced grid, Hz
 * @returns edges in Hz, grid points; null when no level is finite
 */
export function usableBand(
  frequency: Float64Array,
  levels: Float64Array,
  dropDb = 6,
): { from: number; to: number } | null {
  const smooth = smoothLevels(frequency, levels, 3);
  let top = -1;
  for (let i = 0; i < smooth.length; i++) {
    if (Number.isFinite(smooth[i]!) && (top < 0 || smooth[i]! > smooth[top]!)) top = i;
  }
  if (top < 0) return null;
  const within = smooth.filter((level) => level > smooth[top]! - 12).sort();
  const reference = within[within.length >> 1]!;
  const edge = (direction: 1 | -1) => {
    let last = top;
    for (let i = top; i >= 0 && i < smooth.length; i += direction) {
      if (smooth[i]! > reference - dropDb) last = i;
      else if (Math.abs(Math.log2(frequency[i]! / frequency[last]!)) > WIDEST_DIP) break;
    }
    return last;
  };
  return { from: frequency[edge(-1)]!, to: frequency[edge(1)]! };
}
