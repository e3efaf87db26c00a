import type { Point } from '@pebble-hall/core/geometry';
import { boxWalls, extentOf, roomVolume, type Shape } from '@pebble-hall/core/place';
import { runFaces, type Place } from '@pebble-hall/core/project';
import {
  boxModes,
  modePressure,
  shapeModePressure,
  speedOfSound,
  type BoxMode,
  type ShapeMode,
} from '@pebble-hall/core/room';
import { useMemo } from 'react';
import { halfWaves, waveModePressure, type WaveModes } from '@pebble-hall/core/waves';
import { useAlike } from '../../services/useDerived';
import { useJob } from '../../services/useJob';

/** One of a room of any shape at all, by its number among those that were found. */
export interface FoundMode {
  hz: number;
  found: number;
  /** half waves along the plan */
  over: readonly [x: number, y: number];
}
export type Mode = BoxMode | ShapeMode | FoundMode;

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

/** Of a room of any shape at all they are looked for no further than this, Hz. */
const MOST_FOUND_HZ = 120;

/** The lowest modes of a place, up to where statistics take over; null while they are worked out. @param toHz Schroeder frequency */
export function useModes(place: Place, toHz: number): Modes | null {
  const { shape, roomMesh, temperatureC } = place;
  const isPrism = !roomMesh && shape.isEnclosed && shape.ceiling.kind === 'flat' && shape.floorRise === 0;
  const isAsked = isPrism && Number.isFinite(toHz) && toHz > 0;
  const box = useMemo(
    () => (isAsked && boxWalls(shape) ? modesOfBox(shape, temperatureC, toHz) : null),
    [isAsked, shape, temperatureC, toHz],
  );
  const speed = speedOfSound(temperatureC);
  const home = useAlike(place.spots[0]!.position);
  const found = useJob(
    'rays.modes',
    isAsked && !boxWalls(shape) ? { outline: shape.outline, heightM: shape.heightM, speed, toHz } : null,
  ).value;
  const waves = useJob(
    'rays.waveModes',
    useMemo(
      () =>
        isPrism || !(roomVolume({ shape, roomMesh }) > 0) || !(toHz > 0)
          ? null
          : {
              faces: runFaces({ shape, roomMesh }),
              within: home,
              speed,
              toHz: Math.min(MOST_FOUND_HZ, toHz),
              heightM: home.z,
            },
      [isPrism, shape, roomMesh, home, speed, toHz],
    ),
  ).value;
  return useMemo(() => {
    if (box) return box;
    if (waves) return modesOfWaves(waves, toHz);
    if (!found || found.list.length === 0) return null;
    const { least, most } = extentOf(shape);
    return {
      list: found.list.slice(0, MOST_SHOWN),
      least,
      most,
      pressure: (mode, at) => shapeModePressure(found, mode as ShapeMode, { ...at, z: at.z - least.z }),
      endsAtHz: found.toHz < toHz * 0.99 && found.list.length < MOST_SHOWN ? found.toHz : null,
    };
  }, [box, found, waves, shape, toHz]);
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

function modesOfWaves(waves: WaveModes | { problem: string }, toHz: number): Modes | null {
  if ('problem' in waves || waves.hz.length === 0) return null;
  const { counts, steps, origin } = waves;
  return {
    list: waves.hz.slice(0, MOST_SHOWN).map((hz, found) => ({ hz, found, over: halfWaves(waves, found) })),
    least: origin,
    most: { ...origin, x: origin.x + (counts[0] - 1) * steps[0], y: origin.y + (counts[1] - 1) * steps[1] },
    pressure: (mode, at) => waveModePressure(waves, (mode as FoundMode).found, at),
    endsAtHz: toHz > MOST_FOUND_HZ && waves.hz.length < MOST_SHOWN ? MOST_FOUND_HZ : null,
  };
}
