import { needAbove, needNumber } from '../limits/index.js';
import type { Point } from '../geometry/index.js';
import type { LayoutChannel } from './layouts.js';

/** From where a layout is seen: the ears at the home spot, and where they look. */
export interface Listener {
  position: Point;
  /** azimuth of straight ahead, degrees counter-clockwise from x */
  facingDeg: number;
}

const RADIANS = Math.PI / 180;

/** Unit vector of a direction seen by a listener. @param azimuthDeg to the left of straight ahead */
const directionOf = (facingDeg: number, azimuthDeg: number, elevationDeg: number): Point => {
  const azimuth = (facingDeg + azimuthDeg) * RADIANS;
  const elevation = elevationDeg * RADIANS;
  return {
    x: Math.cos(elevation) * Math.cos(azimuth),
    y: Math.cos(elevation) * Math.sin(azimuth),
    z: Math.sin(elevation),
  };
};

/**
 * Where a loudspeaker stands by its layout.
 * @param radiusM distance from the ears, above 0
 * @returns null for a channel whose direction is free
 */
export function layoutPosition(
  { azimuthDeg, elevationDeg }: LayoutChannel,
  { position, facingDeg }: Listener,
  radiusM: number,
): Point | null {
  needAbove('layoutPosition', 'distance in m', radiusM, 0);
  needNumber('layoutPosition', 'facing in degrees', facingDeg);
  if (azimuthDeg === null) return null;
  const { x, y, z } = directionOf(facingDeg, azimuthDeg, elevationDeg);
  return { x: position.x + radiusM * x, y: position.y + radiusM * y, z: position.z + radiusM * z };
}

/** How far a loudspeaker is off its layout, degrees; 0 within the ranges that the layout gives. */
export interface OffLayout {
  /** to the left where positive */
  azimuthDeg: number;
  /** too high where positive */
  elevationDeg: number;
}

/**
 * How far a loudspeaker is off the direction that its layout asks for.
 * @returns null where the direction is free, or it stands where the listener does
 */
export function offLayout(
  channel: LayoutChannel,
  at: Point,
  { position, facingDeg }: Listener,
): OffLayout | null {
  if (channel.azimuthDeg === null) return null;
  const [x, y, z] = [at.x - position.x, at.y - position.y, at.z - position.z];
  const flat = Math.hypot(x, y);
  if (!(Math.hypot(flat, z) > 0)) return null;
  const elevation = Math.atan2(z, flat) / RADIANS;
  const azimuth = wrapped(Math.atan2(y, x) / RADIANS - facingDeg);
  const { elevationRange = [channel.elevationDeg, channel.elevationDeg] } = channel;
  const { azimuthRange = [channel.azimuthDeg, channel.azimuthDeg] } = channel;
  // straight above, every azimuth is the same place
  const isAbove = Math.abs(channel.elevationDeg) === 90;
  return {
    azimuthDeg: isAbove ? 0 : beyond(azimuth, azimuthRange),
    elevationDeg: beyond(elevation, elevationRange),
  };
}

/** How far an angle lies beyond a range, round the circle the shorter way. */
function beyond(angle: number, [from, to]: [number, number]): number {
  const middle = (from + to) / 2;
  const off = wrapped(angle - middle);
  const half = (to - from) / 2;
  return Math.sign(off) * Math.max(0, Math.abs(off) - half);
}

const wrapped = (degrees: number): number => degrees - 360 * Math.round(degrees / 360);
