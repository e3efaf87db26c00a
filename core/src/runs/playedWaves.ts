import type { Point } from '../geometry/index.js';
import { OCTAVES, speedOfSound, type Lows } from '../room/index.js';
import { admittanceOf, isInRoom, roomGrid, waveField, type RoomGrid } from '../waves/index.js';
import { lowsOctaves, lowsOf, type LowsHeard, type LowsPlan } from './lows.js';
import type { PlayedRoom } from './playedImpulse.js';

/** A room in cells, in which what is played below a frequency comes as waves. */
export interface PlayedWaves {
  plan: LowsPlan;
  grid: RoomGrid;
}

/** Cells of a room, found from a point inside on; null where there are none: then rays tell its lows. */
export function playedWaves({ scene }: PlayedRoom, plan: LowsPlan, within: Point): PlayedWaves | null {
  const grid = roomGrid(scene, within, plan.stepM);
  return typeof grid === 'string' ? null : { plan, grid };
}

/**
 * What waves bring to a receiver from many points at once: sent from the receiver, as sound takes a way alike in both directions.
 * @param points those outside of the room bring nothing @param lengthS of the responses @returns null for a receiver that is not in the room
 */
export function wavesFrom(
  { faces, air }: PlayedRoom,
  { plan, grid }: PlayedWaves,
  receiver: Point,
  points: readonly Point[],
  lengthS: number,
): LowsHeard | null {
  const inside = points.map((p) => isInRoom(grid, p));
  if (!isInRoom(grid, receiver) || !inside.some(Boolean)) return null;
  const heard = points.filter((_, i) => inside[i]);
  const speed = speedOfSound(air.temperatureC);
  const found = Array.from({ length: lowsOctaves(plan) }, (_, o) => {
    const admittance = Float64Array.from(faces, (f) => admittanceOf(f.absorption[o]!));
    return waveField(grid, admittance, receiver, heard, speed, lengthS);
  });
  const silent = new Float64Array(found[0]!.samples[0]!.length);
  return {
    ...plan,
    rate: found[0]!.rate,
    cells: grid.cells,
    octaves: found.map(({ samples }) => {
      let at = 0;
      return inside.map((is) => [is ? samples[at++]! : silent]);
    }),
    apartM: [0, 0, 0],
  };
}

/** What of those points plays. */
export interface PlayedPoint {
  /** index among the points of the waves */
  index: number;
  delayS: number;
  gain: number;
}

/** The lows of some of those points together, in a transform that begins with the moment of the drive. */
export function lowsPlayed(
  heard: LowsHeard,
  points: readonly PlayedPoint[],
  { rate, size, speed }: { rate: number; size: number; speed: number },
): Lows {
  const own = { ...heard, octaves: heard.octaves.map((at) => points.map(({ index }) => at[index]!)) };
  const sources = points.map(({ delayS, gain }) => ({
    powerDb: OCTAVES.map(() => 20 * Math.log10(Math.abs(gain))),
    delayS,
    inverted: gain < 0,
  }));
  return lowsOf(own, 'one ear', 0, { rate, size, zero: 0, directS: 0, sources, speed })[0]!;
}
