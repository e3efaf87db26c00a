import { findArrival, powerOnGrid, windowImpulse } from '../measure/index.js';
import { needWithin } from '../limits/index.js';
import { dbOfPower, octaveBands, type ImpulseResponse } from '../signal/index.js';
import type { PolarPlane } from './polarTable.js';

/** A response measured beside a loudspeaker's axis. */
export interface TraceAtAngle {
  impulse: ImpulseResponse;
  /** 0 in the level plane, 90 in the upright one */
  aboutDeg: number;
  /** degrees off the axis; to its left, or upwards, where positive */
  angleDeg: number;
  distanceM: number;
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

function levelsOf({ impulse, distanceM, angleDeg }: TraceAtAngle, grid: Float64Array, windowS: number): number[] {
  needWithin('polarFromTraces', 'distance in m', distanceM, 0.05, 1000);
  const arrival = findArrival(impulse);
  if (!arrival) throw new RangeError(`polarFromTraces: nothing arrives at ${angleDeg} degrees`);
  const direct = windowImpulse(impulse, { centreS: arrival.onsetS, leftS: BEFORE_S, rightS: windowS });
  return Array.from(powerOnGrid(direct, grid, 3), (power) => dbOfPower(power) + 20 * Math.log10(distanceM));
}
