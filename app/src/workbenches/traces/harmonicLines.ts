import type { HarmonicCurves } from '@pebble-hall/core/measure';
import { dbOfPower, powerOfDb } from '@pebble-hall/core/signal';

export interface DistortionLines {
  frequency: Float64Array;
  orders: { order: number; levelDb: Float64Array }[];
  /** all orders together */
  totalDb: Float64Array;
  /** what noise alone would read as all orders together */
  noiseDb: Float64Array;
}

/** So far beyond its band a channel still plays enough to be compared with. */
const BEYOND = 1.5;

/**
 * The curves of a sweep as the plot wants them: equally long, nothing where a harmonic has left the sweep, and nothing
 * where the channel does not play: what noise is to nothing says nothing.
 */
export function distortionLines(
  { frequency, orders }: HarmonicCurves,
  band: { from: number; to: number },
): DistortionLines {
  const plays = (i: number) => frequency[i]! >= band.from / BEYOND && frequency[i]! <= band.to * BEYOND;
  const filled = (list: number[]) =>
    Float64Array.from(frequency, (_, i) => (plays(i) ? (list[i] ?? NaN) : NaN));
  const sum = (pick: (o: HarmonicCurves['orders'][number]) => number[]) =>
    Float64Array.from(frequency, (_, i) => {
      const there = orders.flatMap((o) => (pick(o)[i] === undefined ? [] : powerOfDb(pick(o)[i]!)));
      return there.length === 0 || !plays(i) ? NaN : dbOfPower(there.reduce((a, b) => a + b, 0));
    });
  return {
    frequency: Float64Array.from(frequency),
    orders: orders.map(({ order, levelDb }) => ({ order, levelDb: filled(levelDb) })),
    totalDb: sum((o) => o.levelDb),
    noiseDb: sum((o) => o.noiseDb),
  };
}

/** A harmonic must stand so far above the noise to be called one. */
const CLEAR_DB = 6;
/** What is called much: 3 %. */
export const MUCH_DB = -30;
const ORDINAL: Record<number, string> = { 2: 'second', 3: 'third', 4: 'fourth', 5: 'fifth' };

export interface WorstDistortion {
  frequency: number;
  totalDb: number;
  /** the order that makes most of it */
  order: string;
}

/** Where there is most distortion within a band, of what clearly stands above the noise; null when nothing does. */
export function worstDistortion(
  { frequency, orders, totalDb, noiseDb }: DistortionLines,
  band: { from: number; to: number },
): WorstDistortion | null {
  let at = -1;
  frequency.forEach((f, i) => {
    if (f < band.from || f > band.to || !(totalDb[i]! > noiseDb[i]! + CLEAR_DB)) return;
    if (at < 0 || totalDb[i]! > totalDb[at]!) at = i;
  });
  if (at < 0) return null;
  const most = orders.reduce((a, b) => ((b.levelDb[at] ?? -Infinity) > (a.levelDb[at] ?? -Infinity) ? b : a));
  return {
    frequency: frequency[at]!,
    totalDb: totalDb[at]!,
    order: ORDINAL[most.order] ?? `${most.order}th`,
  };
}

export const percentOf = (db: number): string => {
  const percent = 100 * 10 ** (db / 20);
  return `${percent < 1 ? percent.toFixed(2) : percent.toFixed(1)} %`;
};
