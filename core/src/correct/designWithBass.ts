import { interpolateLog } from '../signal/index.js';
import { shapeDistance, type ChannelDesign } from './designChannel.js';
import { rollOffDb } from './rollOff.js';

/** A channel and the bass that the subwoofers play of it, as they add up over the spots. */
export interface BassSum {
  /** Hz, log; where the subwoofers take part */
  frequency: Float64Array;
  /** power average, quietest and loudest spot, dB, with everything that stands ahead of them */
  sumDb: Float64Array;
  sumRange: { lowDb: Float64Array; highDb: Float64Array };
  /** trim of the channel in it, dB: the target knows nothing of it */
  trimDb: number;
  /** where the two cross, Hz */
  crossoverHz: number;
}

/** The sum passes into the channel alone over the last octave of its axis. */
const JOIN_OCTAVES = 1;

/**
 * The design of a channel as it will play with its bass: below the crossover the limits, reasons and reach are those of the
 * subwoofers, the prediction is the sum at every spot. As found stays the channel alone.
 * @param main the channel, @param sub one of the subwoofers that play its bass, both designed on `grid`
 */
export function designWithBass(
  grid: Float64Array,
  main: ChannelDesign,
  sub: ChannelDesign,
  sum: BassSum,
): ChannelDesign {
  const { frequency, crossoverHz, trimDb } = sum;
  const last = frequency.at(-1)!;
  const joined = (alone: Float64Array, together: Float64Array) => {
    const at = interpolateLog(frequency, together, grid);
    return alone.map((v, i) => {
      const t = Math.min(1, Math.max(0, Math.log2(last / grid[i]!) / JOIN_OCTAVES));
      return t * (at[i]! - trimDb) + (1 - t) * v;
    });
  };
  const predicted = {
    averageDb: joined(main.predicted.averageDb, sum.sumDb),
    lowDb: joined(main.predicted.lowDb, sum.sumRange.lowDb),
    highDb: joined(main.predicted.highDb, sum.sumRange.highDb),
  };
  // the low end is the subwoofers' from here on
  const own = rollOffDb({ low: main.ends.low, high: null }, grid);
  const theirs = rollOffDb({ low: sub.ends.low, high: null }, grid);
  const targetDb = main.targetDb.map((v, i) => v - own[i]! + theirs[i]!);
  const below = (of: (design: ChannelDesign) => Float64Array) =>
    of(main).map((v, i) => (grid[i]! < crossoverHz ? of(sub)[i]! : v));
  const span = { from: Math.min(sub.span.from, main.span.from), to: main.span.to };
  return {
    ...main,
    span,
    predicted,
    targetDb,
    edges: main.edges.filter((edge) => edge.at >= crossoverHz),
    rollOffs: { low: sub.rollOffs.low, high: main.rollOffs.high },
    ends: { low: sub.ends.low, high: main.ends.high },
    room: { boostDb: below((d) => d.room.boostDb), cutDb: below((d) => d.room.cutDb) },
    gainDb: below((d) => d.gainDb),
    fullDb: below((d) => d.fullDb),
    wantedDb: below((d) => d.wantedDb),
    strengthAt: below((d) => d.strengthAt),
    standardDeviationDb: below((d) => d.standardDeviationDb),
    nonMinimumPhase: below((d) => d.nonMinimumPhase),
    leftAlone: [
      ...sub.leftAlone.filter((l) => l.at < crossoverHz),
      ...main.leftAlone.filter((l) => l.at >= crossoverHz),
    ],
    distance: {
      before: main.distance.before,
      after: shapeDistance(grid, predicted.averageDb, targetDb, span),
    },
    // of the spots left out only the channel alone is known
    distanceLeftOut: null,
  };
}
