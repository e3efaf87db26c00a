import type { BalloonData, LevelCurve } from '../directivity/index.js';
import { median } from '../signal/index.js';

/** A loudspeaker as a file tells it. */
export interface ReadLoudspeaker {
  /** as the file calls it; empty where it does not */
  name: string;
  data: BalloonData;
  /** on its axis, 0 dB within its band */
  axis: LevelCurve;
  /** dB SPL at 1 m for 2.83 V, and at the most, where the file says so */
  sensitivityDb: number | null;
  largestDb: number | null;
  /** what was assumed, and what was passed over, each a sentence */
  notes: string[];
}

/** Within its band a loudspeaker is no more than this below its loudest, dB. */
const BAND_DB = 10;

/** A response on axis against its level within its band: the middle one of all levels that are near the highest. */
export function againstBand({ frequency, levelDb }: LevelCurve): LevelCurve {
  const most = levelDb.reduce((a, b) => Math.max(a, b), -Infinity);
  const middle = median([...levelDb].filter((v) => v > most - BAND_DB));
  return { frequency, levelDb: levelDb.map((v) => v - middle) };
}

/** Directions and frequencies, as they are told. */
export const extentWords = ({ data, axis }: Pick<ReadLoudspeaker, 'data' | 'axis'>): string => {
  const hz = (f: number) => (f >= 1000 ? `${+(f / 1000).toPrecision(3)} kHz` : `${+f.toPrecision(3)} Hz`);
  // on a pole there is one direction, however often it is kept
  const directions = data.fromPoleDeg.reduce(
    (sum, row) => sum + (row === 0 || row === 180 ? 1 : data.aboutDeg.length),
    0,
  );
  return (
    `${directions} directions, ${data.hasPhase ? 'with phase' : 'levels only'}, ` +
    `${data.frequency.length} frequencies, ${hz(axis.frequency[0]!)} to ${hz(axis.frequency.at(-1)!)}`
  );
};
