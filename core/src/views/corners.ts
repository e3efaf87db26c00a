import { median, smoothLevels } from '../signal/index.js';

/** Where a response has fallen by so much from its own level; null where it does not within the grid. */
export interface Corners {
  /** level of its middle, dB */
  levelDb: number;
  low: Record<3 | 6 | 10, number | null>;
  high: Record<3 | 6 | 10, number | null>;
}

/**
 * Roll-off corners at -3, -6 and -10 dB against the median level of the band that a response plays in (1/3 octave smoothed,
 * so that room dips end no band).
 */
export function findCorners(
  frequency: Float64Array,
  levels: Float64Array,
  band: { from: number; to: number },
): Corners {
  const smooth = smoothLevels(frequency, levels, 3);
  const inside = [...frequency].flatMap((f, i) => (f >= band.from && f <= band.to ? [i] : []));
  const levelDb = median(inside.map((i) => smooth[i]!));
  const corner = (step: 1 | -1, dropDb: number): number | null => {
    // from the outside inwards: the last place where the response still lies below
    const ends = step === 1 ? [0, frequency.length] : [frequency.length - 1, -1];
    const middle = Math.sqrt(band.from * band.to);
    let below: number | null = null;
    for (let i = ends[0]!; i !== ends[1]!; i += step) {
      if ((frequency[i]! - middle) * step > 0) break;
      if (smooth[i]! >= levelDb - dropDb) return below;
      below = frequency[i]!;
    }
    return below;
  };
  const both = (step: 1 | -1) => ({ 3: corner(step, 3), 6: corner(step, 6), 10: corner(step, 10) });
  return { levelDb, low: both(1), high: both(-1) };
}
