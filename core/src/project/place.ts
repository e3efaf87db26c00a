import type { Point } from '../geometry/index.js';
import type { Up } from '../drawings/index.js';
import type { Guess } from '../loudspeakers/index.js';
import type { AudienceArea, Group, RoomMesh, Shape, SurfaceVariant } from '../place/index.js';
import type { PerOctave } from '../room/index.js';

/** How a loudspeaker is held. */
export const MOUNTS = ['standing', 'hung', 'in the wall'] as const;
export type Mount = (typeof MOUNTS)[number];

/** A channel and what it plays through: one loudspeaker, or a group of one model on the same output. */
export interface Loudspeaker {
  id: string;
  name: string;
  /** a few letters, where there is little room */
  abbreviation: string;
  /** what feeds the channel, in words; empty where nobody said */
  feed: string;
  model: string;
  role: 'full range' | 'subwoofer';
  /** output of interface and processor that feeds it, from 1 */
  output: number;
  /** of a group its centre */
  position: Point;
  /** azimuth in which it points, degrees counter-clockwise from x */
  aimDeg: number;
  /** up where positive */
  pitchDeg: number;
  /** about its own axis, its left side down where positive */
  rollDeg: number;
  mount: Mount;
  group: Group | null;
  /** stays where it is until it is unlocked */
  locked: boolean;
  /** its label in the layout that the place follows; null where it belongs to none */
  layoutLabel: string | null;
  /** false when the engineer said that nothing is connected */
  fitted: boolean;
}

export interface Seat {
  id: string;
  name: string;
  position: Point;
}

/** What stands or hangs in the place, or is let into its walls. */
export const FIXTURE_KINDS = [
  'stage',
  'steps',
  'balcony',
  'column',
  'door',
  'window',
  'sofa',
  'chair',
  'rug',
  'other',
] as const;

export interface Fixture {
  id: string;
  name: string;
  kind: (typeof FIXTURE_KINDS)[number];
  /** corner nearest the origin, and extent, metres */
  x: number;
  y: number;
  width: number;
  depth: number;
  /** height of its lower and its upper side */
  bottom: number;
  top: number;
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

/** A drawing by somebody else, laid under the plan; its file is enclosed in the project. */
export type Underlay = {
  id: string;
  name: string;
  fileId: string;
  isShown: boolean;
  /** where its middle comes to lie; of a model that of its lowest level */
  at: Point;
  /** about the vertical, counter-clockwise seen from above */
  turnDeg: number;
} & (
  | { kind: 'picture'; widthPx: number; heightPx: number; metresPerPixel: number; opacity: number }
  | { kind: 'model'; up: Up; unitM: number }
);

/** A loudspeaker model of one's own. Channels name it; its data are a file that is enclosed in the project. */
export interface OwnModel {
  id: string;
  /** none of the library has it, and no other one */
  name: string;
  role: Loudspeaker['role'];
  /** dB SPL at 1 m for 2.83 V */
  sensitivityDb: number;
  /** dB SPL on its axis at 1 m within its band for a sine at full scale */
  largestDb: number;
  source: { kind: 'AES69' | 'table' | 'traces'; fileId: string } | { kind: 'guess'; guess: Guess };
}

/** A head from a file, packed as the room model hears with it. */
export interface OwnHead {
  name: string;
  /** its numbers: `packedHead` */
  arrayId: string;
  directions: number;
}

/** A material of one's own; shares per octave from 63 Hz to 8 kHz. */
export interface OwnMaterial {
  id: string;
  name: string;
  absorption: PerOctave;
  scattering: PerOctave;
}

export const PLACE_KINDS = ['listening room', 'control room', 'hall', 'open air'] as const;
export type PlaceKind = (typeof PLACE_KINDS)[number];

export interface Place {
  name: string;
  kind: PlaceKind;
  /** in which lengths are shown and typed; they are kept in metres */
  lengthUnit: 'm' | 'ft';
  shape: Shape;
  temperatureC: number;
  relativeHumidityPercent: number;
  /** seats by themselves */
  seats: Seat[];
  audience: AudienceArea[];
  fixtures: Fixture[];
  underlays: Underlay[];
  /** modelled in place of what is drawn; nothing where the room is as drawn */
  roomMesh?: RoomMesh | null;
  /** what its surfaces were, or may be, made of; none where nothing was kept */
  surfaceVariants?: SurfaceVariant[];
  models: OwnModel[];
  /** whose ears the room model is heard with; a rigid sphere's where there is none */
  head?: OwnHead | null;
  /** one's own, beside those that ship with the program */
  materials: OwnMaterial[];
  /** reverberation time that is wanted at 500 Hz and 1 kHz, seconds; null for none */
  wantedS: number | null;
  /** the layout that loudspeakers follow, by its id; null where they were placed freely */
  layoutId: string | null;
  loudspeakers: Loudspeaker[];
  spots: Spot[];
}
