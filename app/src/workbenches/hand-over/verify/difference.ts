import type { Span } from '@pebble-hall/core/correct';
import { aboveNoiseDb, noiseMovesDb, responseMargins } from '@pebble-hall/core/measure';
import type { Sweep } from '@pebble-hall/core/project';
import { smoothLevels } from '@pebble-hall/core/signal';

/** Within this the prediction counts as true, 1/6 octave within the span. */
export const AGREES_DB = 0.5;
/** What stands less than this above the noise is not judged. */
export const JUDGED_ABOVE_DB = 20;

/** A response and how it stands above its noise. */
export interface Heard {
  levelDb: Float64Array;
  margins: { centre: number; snrDb: number }[];
}

/** A response with the margins that follow from its sweep. */
export const heardOf = (
  levelDb: Float64Array,
  sweep: Pick<Sweep, 'margins' | 'decayEnd'> | undefined,
  sweepS: number,
): Heard => ({ levelDb, margins: sweep ? responseMargins(sweep.margins, sweep.decayEnd, sweepS) : [] });

/** Less than this share of the span is no judgement. */
const LEAST_JUDGED = 0.5;
/** So much of the span has to be judged for a louder sweep to be no use. */
const WELL_JUDGED = 0.9;

/** Verified less predicted, 1/6 octave, over the part of the span that is judged. */
export interface Difference {
  rmsDb: number;
  /** where it disagrees, the one farthest beyond what noise can explain; else the largest */
  worstDb: number;
  worstAt: number;
  /** what noise can explain of it, dB */
  noiseDb: number;
  /** whether it was judged, and is no more than what counts as true, and noise */
  agrees: boolean;
  /** whether at least half of the span stands clear of the noise */
  isJudged: boolean;
  /** octaves of the span, and those of them that lie too near to the noise to be judged */
  octaves: number;
  unjudged: number;
  /** by how much louder sweeps would have most of it judged, dB */
  raiseDb: number;
}

/**
 * Holds what was measured again against its prediction. Both rest on sweeps in noise: what noise can move a level by is
 * allowed for, and what hardly stands above it is not judged at all, unless nothing else is there.
 * @param found what the prediction was made from
 */
export function differenceOf(
  grid: Float64Array,
  predictedDb: Float64Array,
  found: Heard,
  verified: Heard,
  span: Span,
): Difference {
  const smooth = (levels: Float64Array) => smoothLevels(grid, levels, 6);
  const [a, b] = [smooth(predictedDb), smooth(verified.levelDb)];
  const above = [
    { ...found, levelDb: smooth(found.levelDb) },
    { ...verified, levelDb: b },
  ].flatMap(({ levelDb, margins }) => (margins.length > 0 ? [aboveNoiseDb(grid, levelDb, margins)] : []));
  const inside = [...grid.keys()].filter((i) => grid[i]! >= span.from && grid[i]! <= span.to);
  const clear = inside.filter((i) => above.every((curve) => curve[i]! >= JUDGED_ABOVE_DB));
  const isJudged = clear.length >= LEAST_JUDGED * inside.length;
  const judged = clear.length > 0 ? clear : inside;
  const off = (i: number) => b[i]! - a[i]!;
  const noise = (i: number) =>
    clear.length > 0 ? above.reduce((sum, curve) => sum + noiseMovesDb(curve[i]!), 0) : 0;
  const beyond = (i: number) => Math.abs(off(i)) - noise(i);
  const largest = (of: (i: number) => number) => judged.reduce((w, i) => (of(i) > of(w) ? i : w), judged[0]!);
  const farthest = largest(beyond);
  const agrees = isJudged && beyond(farthest) <= AGREES_DB;
  // what disagrees is shown where it does; else the largest difference, though noise may explain it
  const worst = agrees ? largest((i) => Math.abs(off(i))) : farthest;
  /** What lifts the quietest tenth that still has to count to where it is judged. */
  const raise = () => {
    const least = inside.map((i) => Math.min(...above.map((curve) => curve[i]!))).sort((x, y) => x - y);
    return Math.max(0, JUDGED_ABOVE_DB - least[Math.floor((1 - WELL_JUDGED) * least.length)]!);
  };
  const octave = Math.log2(grid[1]! / grid[0]!);
  return {
    rmsDb: Math.sqrt(judged.reduce((sum, i) => sum + off(i) ** 2, 0) / judged.length),
    worstDb: off(worst),
    worstAt: grid[worst]!,
    noiseDb: noise(worst),
    agrees,
    isJudged,
    octaves: inside.length * octave,
    unjudged: (inside.length - clear.length) * octave,
    raiseDb: clear.length >= WELL_JUDGED * inside.length ? 0 : raise(),
  };
}
