import type { Point } from '../geometry/index.js';
import { needAbove, needNumber, needWithin } from '../limits/index.js';

/** A standing wave of a box: half waves along each of its sides. */
export interface BoxMode {
  hz: number;
  /** whole numbers, not all 0 */
  order: readonly [x: number, y: number, z: number];
}

/** More are none that anybody tells apart. */
const MOST_MODES = 5000;

/**
 * Modes of a box with hard walls up to a frequency, lowest first: f = c / 2 sqrt((l / X)^2 + (m / Y)^2 + (n / Z)^2).
 * @param size metres @param speed m/s @param toHz
 * @throws RangeError for sides or speeds that are none, or where there are more than 5,000
 */
export function boxModes(size: Point, speed: number, toHz: number): BoxMode[] {
  for (const side of [size.x, size.y, size.z]) needAbove('boxModes', 'side in m', side, 0);
  needAbove('boxModes', 'speed of sound in m/s', speed, 0);
  needAbove('boxModes', 'highest frequency in Hz', toHz, 0);
  // as many as there are about (Kuttruff, Room Acoustics): the volume term alone is less than all
  const about = ((4 * Math.PI) / 3) * size.x * size.y * size.z * (toHz / speed) ** 3;
  needWithin('boxModes', 'number of modes', about, 0, MOST_MODES);
  const half = speed / 2;
  const found: BoxMode[] = [];
  for (let l = 0; (half * l) / size.x <= toHz; l++)
    for (let m = 0; half * Math.hypot(l / size.x, m / size.y) <= toHz; m++)
      for (let n = 0; ; n++) {
        const hz = half * Math.hypot(l / size.x, m / size.y, n / size.z);
        if (hz > toHz) break;
        if (l + m + n > 0) found.push({ hz, order: [l, m, n] });
      }
  return found.sort((a, b) => a.hz - b.hz);
}

/** Pressure of a mode at a place, -1 to 1: cos(l pi x / X) cos(m pi y / Y) cos(n pi z / Z). @param at from the corner of the box, metres */
export function modePressure({ order: [l, m, n] }: BoxMode, size: Point, at: Point): number {
  needNumber('modePressure', 'place', at.x + at.y + at.z);
  const along = (k: number, v: number, side: number) => Math.cos((k * Math.PI * v) / side);
  return along(l, at.x, size.x) * along(m, at.y, size.y) * along(n, at.z, size.z);
}
