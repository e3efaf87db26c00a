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
const DIRECTIONS = 361;
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
  const points = new Float64Array(3 * DIRECTIONS);
  for (let i = 0; i < DIRECTIONS; i++) {
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
    boxes: [{ position: centre, axes: axesOf((aimDeg * Math.PI) / 180), delayMs: 0, inverted: false }],
  });
  const [front, back] = [180, 0];
  return {
    frequency,
    polars: all.map((db) => db.map((v) => Math.max(DEEPEST_DB, v - db[front]!))),
    frontToBackDb: Float64Array.from(all, (db) => Math.min(-DEEPEST_DB, db[front]! - db[back]!)),
    aheadDb: Float64Array.from(all, (db, n) => db[front]! - alone[n]![front]!),
  };
}
