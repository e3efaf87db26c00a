import { axesOf, meanPoint } from '../geometry/index.js';
import { signalPath } from '../path/index.js';
import { pressureAtPoints, type CoverageChannel } from './levelMap.js';

/** How a group radiates as a whole, around it at its own height. */
export interface GroupPattern {
  /** Hz */
  frequency: Float64Array;
  /** dB against the front, each degree from -180 to 180, per frequency */
  polars: Float64Array[];
  /** ahead over behind, dB */
  frontToBackDb: Float64Array;
  /** ahead over one box alone in its middle, dB */
  aheadDb: Float64Array;
}

/** So far away its boxes are one, metres; levels are those of the direction alone. */
const FAR_M = 2000;
export const PATTERN_DIRECTIONS = 361;
/** Nothing is further below the front than this, dB. */
const DEEPEST_DB = -80;

/**
 * The pattern of a channel's boxes in the open, far away, without air.
 * @param aimDeg azimuth of the group's front @param speed m/s
 */
export function groupPattern(
  channel: CoverageChannel,
  aimDeg: number,
  frequency: Float64Array,
  speed: number,
): GroupPattern {
  const centre = meanPoint(channel.boxes.map((b) => b.position));
  const points = new Float64Array(3 * PATTERN_DIRECTIONS);
  for (let i = 0; i < PATTERN_DIRECTIONS; i++) {
    const angle = ((aimDeg + i - 180) * Math.PI) / 180;
    points.set([centre.x + FAR_M * Math.cos(angle), centre.y + FAR_M * Math.sin(angle), centre.z], 3 * i);
  }
  const open = { speed, air: null, ground: null };
  const levels = (of: CoverageChannel) => {
    const { re, im } = pressureAtPoints([of], open, points, frequency);
    return re.map((at, n) => at.map((v, p) => 20 * Math.log10(Math.hypot(v, im[n]![p]!) + 1e-30)));
  };
  const all = levels(channel);
  const alone = levels({
    ...channel,
    path: signalPath(channel.path.rate),
    boxes: [{ position: centre, axes: axesOf(aimDeg), delayMs: 0, inverted: false }],
  });
  return patternFrom(
    frequency,
    all,
    Float64Array.from(alone, (db) => db[FRONT]!),
  );
}

const [FRONT, BACK] = [180, 0];

/** @param all dB in each direction, per frequency @param alone dB of one box ahead, per frequency */
export const patternFrom = (
  frequency: Float64Array,
  all: readonly Float64Array[],
  alone: Float64Array,
): GroupPattern => ({
  frequency,
  polars: all.map((db) => db.map((v) => Math.max(DEEPEST_DB, v - db[FRONT]!))),
  frontToBackDb: Float64Array.from(all, (db) => Math.min(-DEEPEST_DB, db[FRONT]! - db[BACK]!)),
  aheadDb: Float64Array.from(all, (db, n) => db[FRONT]! - alone[n]!),
});
