import type { Point } from '@pebble-hall/core/geometry';
import type { LoudspeakerModel } from '@pebble-hall/core/room';
import { DUNLIN_6, EIDER_10 } from '../loudspeakers/index.js';

export interface PlacedLoudspeaker {
  id: string;
  name: string;
  role: 'full range' | 'subwoofer';
  /** output of the interface, from 1 */
  output: number;
  model: LoudspeakerModel;
  position: Point;
  /** azimuth of its axis, degrees counter-clockwise from x */
  aimDeg: number;
}

/** Where the loudspeakers really stand; front wall at x = 0, left is towards y = 0. */
export const NET_LOFT_LOUDSPEAKERS: PlacedLoudspeaker[] = [
  {
    id: 'left',
    name: 'Left',
    role: 'full range',
    output: 1,
    model: DUNLIN_6,
    position: { x: 0.62, y: 0.78, z: 1.1 },
    aimDeg: 23,
  },
  {
    id: 'right',
    name: 'Right',
    role: 'full range',
    output: 2,
    model: DUNLIN_6,
    position: { x: 0.58, y: 3.36, z: 1.1 },
    aimDeg: -23,
  },
  {
    id: 'centre',
    name: 'Centre',
    role: 'full range',
    output: 3,
    model: DUNLIN_6,
    position: { x: 0.42, y: 2.05, z: 0.82 },
    aimDeg: 0,
  },
  {
    id: 'surround-left',
    name: 'Surround left',
    role: 'full range',
    output: 4,
    model: DUNLIN_6,
    position: { x: 4.62, y: 0.36, z: 1.55 },
    aimDeg: 121,
  },
  {
    id: 'surround-right',
    name: 'Surround right',
    role: 'full range',
    output: 5,
    model: DUNLIN_6,
    position: { x: 4.7, y: 3.72, z: 1.55 },
    aimDeg: -122,
  },
  {
    id: 'sub-1',
    name: 'Sub 1',
    role: 'subwoofer',
    output: 6,
    model: EIDER_10,
    position: { x: 0.34, y: 0.32, z: 0.28 },
    aimDeg: 45,
  },
  {
    id: 'sub-2',
    name: 'Sub 2',
    role: 'subwoofer',
    output: 7,
    model: EIDER_10,
    position: { x: 5.22, y: 3.72, z: 0.28 },
    aimDeg: -135,
  },
];
