import { horizontalAim, type Point } from '@pebble-hall/core/geometry';
import type { LoudspeakerModel, Source } from '@pebble-hall/core/room';

/** The two models of the Net Loft; all invented. */
export const DUNLIN_6: LoudspeakerModel = {
  name: 'Dunlin 6',
  low: { frequency: 62, order: 3 },
  high: { frequency: 17500, order: 2 },
  resonances: [
    { frequency: 95, gainDb: 1.6, q: 1.2 },
    { frequency: 480, gainDb: -2.1, q: 1.1 },
    { frequency: 1350, gainDb: 2.6, q: 1.3 },
    { frequency: 3100, gainDb: -2.4, q: 1.6 },
    { frequency: 8600, gainDb: 2.2, q: 1.4 },
  ],
  levelDb: -4,
  beamFrequency: 2600,
  narrowest: 2.6,
  distortion: { second: 0.012, third: 0.02 },
};

export const EIDER_10: LoudspeakerModel = {
  name: 'Eider 10',
  low: { frequency: 27, order: 4 },
  high: { frequency: 320, order: 2 },
  resonances: [{ frequency: 34, gainDb: 1.8, q: 1.4 }],
  levelDb: -1,
  beamFrequency: 1e6,
  narrowest: 0.1,
  distortion: { second: 0.03, third: 0.05 },
};

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

export function sourceOf({ model, position, aimDeg }: PlacedLoudspeaker): Source {
  return { model, position, aim: horizontalAim((aimDeg * Math.PI) / 180) };
}
