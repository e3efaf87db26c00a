import { axesOf, distanceBetween, dot, minus, type Point } from '../geometry/index.js';
import { findArrival, powerOnGrid, windowImpulse } from '../measure/index.js';
import { needWithin } from '../limits/index.js';
import { dbOfPower, interpolateLog, octaveBands, type ImpulseResponse } from '../signal/index.js';
import type { PolarPlane } from './polarTable.js';

/** A response measured beside a loudspeaker's axis. */
export interface TraceAtAngle {
  impulse: ImpulseResponse;
  /** 0 in the level plane, 90 in the upright one */
  aboutDeg: number;
  /** degrees off the axis; to its left, or upwards, where positive */
  angleDeg: number;
  distanceM: number;
  /** how much the microphone reads over the truth; null where nobody knows */
  microphone: { frequency: ArrayLike<number>; levelDb: ArrayLike<number> } | null;
}

/** Where a point lies, seen from a loudspeaker. */
export interface SeenAt {
  /** of the level and the upright plane the nearer one */
  aboutDeg: 0 | 90;
  /** off the axis; to its left, or upwards, where positive */
  angleDeg: number;
  distanceM: number;
  /** how far out of that plane it lies, degrees */
  besideDeg: number;
}

/** Where a loudspeaker that points somewhere has a point. */
export function seenFrom(
  {
    position,
    aimDeg,
    pitchDeg,
    rollDeg,
  }: { position: Point; aimDeg: number; pitchDeg: number; rollDeg: number },
  point: Point,
): SeenAt {
  const axes = axesOf(aimDeg, pitchDeg, rollDeg);
  const there = minus(point, position);
  const distanceM = distanceBetween(point, position);
  const [ahead, left, up] = [axes.ahead, axes.left, axes.up].map((a) => dot(there, a)) as [
    number,
    number,
    number,
  ];
  const DEG = 180 / Math.PI;
  const off = Math.atan2(Math.hypot(left, up), ahead) * DEG;
  const isLevel = Math.abs(left) >= Math.abs(up);
  const beside = isLevel ? up : left;
  return {
    aboutDeg: isLevel ? 0 : 90,
    angleDeg: off * ((isLevel ? left : up) < 0 ? -1 : 1),
    distanceM,
    besideDeg: distanceM > 0 ? Math.abs(Math.asin(Math.max(-1, Math.min(1, beside / distanceM)))) * DEG : 0,
  };
}

const HIGHEST_HZ = 20_000;
/** Ahead of the first arrival, seconds. */
const BEFORE_S = 0.001;

/**
 * Levels in planes from traces at angles: each windowed to its direct sound, in thirds of an octave, as at 1 m (level grows by
 * 20 log r). Below one over the window nothing can be told: thirds begin at twice that.
 * @param windowS how long after the first arrival it is listened, s
 * @throws RangeError for a trace in which nothing arrives
 */
export function polarFromTraces(traces: readonly TraceAtAngle[], windowS: number): PolarPlane[] {
  needWithin('polarFromTraces', 'window in s', windowS, 0.0005, 1);
  const grid = Float64Array.from(octaveBands(3, 2 / windowS, HIGHEST_HZ), (b) => b.centre);
  const abouts = [...new Set(traces.map((t) => t.aboutDeg))].sort((a, b) => a - b);
  return abouts.map((aboutDeg) => {
    const own = traces.filter((t) => t.aboutDeg === aboutDeg).sort((a, b) => a.angleDeg - b.angleDeg);
    return {
      aboutDeg,
      angleDeg: own.map((t) => t.angleDeg),
      frequency: [...grid],
      levelDb: own.map((t) => levelsOf(t, grid, windowS)),
      phaseDeg: null,
    };
  });
}

function levelsOf(
  { impulse, distanceM, angleDeg, microphone }: TraceAtAngle,
  grid: Float64Array,
  windowS: number,
): number[] {
  needWithin('polarFromTraces', 'distance in m', distanceM, 0.05, 1000);
  const arrival = findArrival(impulse);
  if (!arrival) throw new RangeError(`polarFromTraces: nothing arrives at ${angleDeg} degrees`);
  const direct = windowImpulse(impulse, { centreS: arrival.onsetS, leftS: BEFORE_S, rightS: windowS });
  const error = microphone
    ? interpolateLog(Float64Array.from(microphone.frequency), Float64Array.from(microphone.levelDb), grid)
    : null;
  return Array.from(
    powerOnGrid(direct, grid, 3),
    (power, n) => dbOfPower(power) + 20 * Math.log10(distanceM) - (error?.[n] ?? 0),
  );
}
