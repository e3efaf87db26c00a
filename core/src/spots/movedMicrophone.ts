import { solveLinear } from '../signal/index.js';
import type { Point } from '../geometry/index.js';

/** When a loudspeaker was heard at a spot, in the order in which they were taken. */
export interface HeardFrom {
  loudspeaker: Point;
  /** way of the sound, metres: its arrival times the speed of sound, less what the chain adds to it */
  wayM: number;
}

export interface MovedMicrophone {
  /** index of the first sweep after the move */
  before: number;
  /** how far, as well as it can be told, metres */
  byM: number;
}

/** Arrivals are known to the half of a sample, 4 mm at 48 kHz; what fits one point worse than this (RMS) was not heard at one point. */
const FIT_M = 0.009;
/** How well the plan knows where the stand is. */
const PLAN_M = 0.1;

/**
 * Whether the microphone was moved between the channels of one spot: the ways of the sound then fit no single point. The
 * move is put where two points, one before and one after it, explain the ways best.
 * @param heard at least 4, in the order taken
 * @param planned where the spot is in the plan
 * @returns null when one point explains them all, or fewer than 4 were heard
 */
export function movedMicrophone(heard: HeardFrom[], planned: Point): MovedMicrophone | null {
  if (heard.length < 4) return null;
  const one = fitPoint(heard, planned);
  if (one.rmsM < FIT_M) return null;
  let best: (MovedMicrophone & { error: number }) | null = null;
  for (let before = 1; before < heard.length; before++) {
    const a = fitPoint(heard.slice(0, before), planned);
    // the second place is looked for near the first: a stand that was knocked goes no farther than it must
    const b = fitPoint(heard.slice(before), a.point);
    const error = a.cost + b.cost;
    const byM = Math.hypot(...(['x', 'y', 'z'] as const).map((k) => a.point[k] - b.point[k]));
    if (!best || error < best.error) best = { before, byM, error };
  }
  return best && { before: best.before, byM: best.byM };
}

/** The point that explains some ways best, held near where it is planned (Gauss-Newton with a prior). */
function fitPoint(heard: HeardFrom[], planned: Point): { point: Point; rmsM: number; cost: number } {
  const point = [planned.x, planned.y, planned.z];
  const prior = (WAY_M / PLAN_M) ** 2;
  for (let round = 0; round < 8; round++) {
    const normal = [
      [prior, 0, 0],
      [0, prior, 0],
      [0, 0, prior],
    ];
    const right = [planned.x, planned.y, planned.z].map((v, k) => prior * (v - point[k]!));
    for (const { loudspeaker: l, wayM } of heard) {
      const d = [point[0]! - l.x, point[1]! - l.y, point[2]! - l.z];
      const length = Math.hypot(...d);
      const slope = d.map((v) => v / length);
      for (let r = 0; r < 3; r++) {
        right[r] = right[r]! + slope[r]! * (wayM - length);
        for (let c = 0; c < 3; c++) normal[r]![c] = normal[r]![c]! + slope[r]! * slope[c]!;
      }
    }
    solveLinear(normal, right).forEach((step, k) => (point[k] = point[k]! + step));
  }
  const at = { x: point[0]!, y: point[1]!, z: point[2]! };
  const off = heard.map(({ loudspeaker: l, wayM }) => wayM - Math.hypot(at.x - l.x, at.y - l.y, at.z - l.z));
  const squares = off.reduce((sum, v) => sum + v * v, 0);
  const drift = Math.hypot(at.x - planned.x, at.y - planned.y, at.z - planned.z);
  return { point: at, rmsM: Math.sqrt(squares / heard.length), cost: squares + prior * drift * drift };
}

/** How well a way is known, metres: it weighs ways against the plan. */
const WAY_M = 0.01;
