import type { Point } from '../geometry/index.js';

export interface Loudspeaker {
  id: string;
  name: string;
  model: string;
  role: 'full range' | 'subwoofer';
  /** output of interface and processor that feeds it, from 1 */
  output: number;
  position: Point;
  /** azimuth in which it points, degrees counter-clockwise from x */
  aimDeg: number;
  /** false when the engineer said that nothing is connected */
  fitted: boolean;
}

export interface Seat {
  id: string;
  name: string;
  position: Point;
}

export interface Furniture {
  kind: 'sofa' | 'chair' | 'window' | 'rug';
  /** corner nearest the origin, and extent, metres */
  x: number;
  y: number;
  width: number;
  depth: number;
}

/** A microphone position. The first of a project is the home spot. */
export interface Spot {
  id: string;
  name: string;
  position: Point;
  /** whether Correct averages it; a spot left out can still judge the result */
  inAverage: boolean;
  /** how much it counts in the average, against 1 */
  weight: number;
  /** at ear height, or with the capsule on the floor, where pressure is doubled */
  surface: 'ear' | 'ground plane';
}

/** Loudspeakers that are looked at and corrected alike. */
export interface Family {
  id: string;
  name: string;
  loudspeakerIds: string[];
}

export interface Place {
  name: string;
  /** metres along x, y, z */
  size: Point;
  temperatureC: number;
  seats: Seat[];
  furniture: Furniture[];
  loudspeakers: Loudspeaker[];
  spots: Spot[];
}
