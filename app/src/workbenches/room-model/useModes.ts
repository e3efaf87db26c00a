import type { Point } from '@pebble-hall/core/geometry';
import { boxWalls, extentOf } from '@pebble-hall/core/place';
import type { Place } from '@pebble-hall/core/project';
import { boxModes, speedOfSound, type BoxMode } from '@pebble-hall/core/room';
import { useMemo } from 'react';

/** The box that a place is, and its modes. */
export interface Modes {
  list: BoxMode[];
  size: Point;
  /** its corner with the least coordinates */
  origin: Point;
}

const MOST_SHOWN = 24;

/** The lowest modes of a place that is a box, up to where statistics take over; null for any other. @param toHz Schroeder frequency */
export function useModes({ shape, temperatureC }: Place, toHz: number): Modes | null {
  return useMemo(() => {
    if (!boxWalls(shape) || !Number.isFinite(toHz) || toHz <= 0) return null;
    const { least, most } = extentOf(shape);
    const size = { x: most.x - least.x, y: most.y - least.y, z: most.z - least.z };
    const list = modesTo(size, speedOfSound(temperatureC), toHz);
    return list.length > 0 ? { list: list.slice(0, MOST_SHOWN), size, origin: least } : null;
  }, [shape, temperatureC, toHz]);
}

function modesTo(size: Point, speed: number, toHz: number): BoxMode[] {
  try {
    return boxModes(size, speed, toHz);
  } catch {
    // more than anybody could look at one by one
    return [];
  }
}
