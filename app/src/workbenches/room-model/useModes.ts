import type { Point } from '@pebble-hall/core/geometry';
import { boxWalls, extentOf, type Shape } from '@pebble-hall/core/place';
import type { Place } from '@pebble-hall/core/project';
import {
  boxModes,
  modePressure,
  shapeModePressure,
  speedOfSound,
  type BoxMode,
  type ShapeMode,
} from '@pebble-hall/core/room';
import { useMemo } from 'react';
import { useJob } from '../../services/useJob';

export type Mode = BoxMode | ShapeMode;

/** The lowest modes of a place. */
export interface Modes {
  list: Mode[];
  /** corners of what encloses it, with the least and the largest coordinates */
  least: Point;
  most: Point;
  /** -1 to 1 */
  pressure: (mode: Mode, at: Point) => number;
  /** up to here they are all there, Hz; null where nothing was left out */
  endsAtHz: number | null;
}

const MOST_SHOWN = 24;

/**
 * The lowest modes of a place with a level floor and ceiling, up to where statistics take over; null for any other, and while they
 * are worked out. @param toHz Schroeder frequency
 */
export function useModes({ shape, roomMesh, temperatureC }: Place, toHz: number): Modes | null {
  const isPrism = !roomMesh && shape.isEnclosed && shape.ceiling.kind === 'flat' && shape.floorRise === 0;
  const isAsked = isPrism && Number.isFinite(toHz) && toHz > 0;
  const box = useMemo(
    () => (isAsked && boxWalls(shape) ? modesOfBox(shape, temperatureC, toHz) : null),
    [isAsked, shape, temperatureC, toHz],
  );
  const speed = speedOfSound(temperatureC);
  const found = useJob(
    'rays.modes',
    isAsked && !boxWalls(shape) ? { outline: shape.outline, heightM: shape.heightM, speed, toHz } : null,
  ).value;
  return useMemo(() => {
    if (box) return box;
    if (!found || found.list.length === 0) return null;
    const { least, most } = extentOf(shape);
    return {
      list: found.list.slice(0, MOST_SHOWN),
      least,
      most,
      pressure: (mode, at) => shapeModePressure(found, mode as ShapeMode, { ...at, z: at.z - least.z }),
      endsAtHz: found.toHz < toHz * 0.99 && found.list.length < MOST_SHOWN ? found.toHz : null,
    };
  }, [box, found, shape, toHz]);
}

function modesOfBox(shape: Shape, temperatureC: number, toHz: number): Modes | null {
  const { least, most } = extentOf(shape);
  const size = { x: most.x - least.x, y: most.y - least.y, z: most.z - least.z };
  let list: BoxMode[];
  try {
    list = boxModes(size, speedOfSound(temperatureC), toHz).slice(0, MOST_SHOWN);
  } catch {
    return null; // more than anybody could look at one by one
  }
  const from = (at: Point): Point => ({ x: at.x - least.x, y: at.y - least.y, z: at.z - least.z });
  return list.length === 0
    ? null
    : {
        list,
        least,
        most,
        pressure: (mode, at) => modePressure(mode as BoxMode, size, from(at)),
        endsAtHz: null,
      };
}
