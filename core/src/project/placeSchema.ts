import { type RoomMesh } from '../place/index.js';
import Joi from 'joi';
import { GUESS_KINDS } from '../loudspeakers/index.js';
import { OCTAVES } from '../room/index.js';
import { FIXTURE_KINDS, MOUNTS, PLACE_KINDS } from './place.js';
import { channel, id, list, number, position, text, things } from './schemaValues.js';

/** Nothing is further away, or larger, metres; a place of 1e9 m is a slip of the hand. */
const MOST_M = 2000;
const metres = number.min(-MOST_M).max(MOST_M);
const corner = Joi.object({ x: metres, y: metres });
const outline = list(corner, 200).min(3);
const degrees = number.min(-3600).max(3600);
const shares = Joi.array().items(number.min(0).max(1)).length(OCTAVES.length);
const face = Joi.object({
  name: text,
  absorption: shares,
  scattering: shares,
  material: text.allow(null),
});
const along = Joi.valid('x', 'y');
const slope = (kind: string) =>
  Joi.object({ kind: Joi.valid(kind), along, highM: number.greater(0).max(MOST_M) });

const shape = Joi.object({
  outline,
  heightM: number.min(0.1).max(MOST_M),
  floorRise: number.min(-2).max(2),
  ceiling: Joi.alternatives(Joi.object({ kind: Joi.valid('flat') }), slope('pitched'), slope('ridged')),
  isEnclosed: Joi.boolean(),
  walls: list(face, 200),
  floor: face,
  roof: face,
});

const spacingM = number.min(0).max(100);
const count = number.integer().min(1).max(64);
const delayMs = number.min(0).max(1000);
const free = Joi.object({
  ahead: metres,
  left: metres,
  up: metres,
  yawDeg: degrees,
  pitchDeg: degrees,
  delayMs,
  inverted: Joi.boolean(),
});
const group = Joi.alternatives(
  Joi.object({ kind: Joi.valid('line'), spacingM, splayDeg: list(number.min(-90).max(90), 63) }),
  Joi.object({ kind: Joi.valid('row', 'stack'), count, spacingM }),
  Joi.object({ kind: Joi.valid('arc'), count, radiusM: spacingM, spanDeg: number.min(0).max(360) }),
  Joi.object({ kind: Joi.valid('gradient'), spacingM, rearDelayMs: delayMs }),
  Joi.object({ kind: Joi.valid('end-fire'), count, spacingM, stepMs: delayMs }),
  Joi.object({ kind: Joi.valid('free'), boxes: list(free, 64).min(1) }),
);

/** Kept of one place. */
export const MOST_SURFACE_VARIANTS = 30;
/** As many faces as a run takes. */
export const MOST_ROOM_FACES = 5000;

const roomMesh = Joi.object({
  name: text,
  surfaces: list(face, 500).min(1),
  faces: list(
    Joi.object({ surface: number.integer().min(0).max(499), corners: list(position, 200).min(3) }),
    MOST_ROOM_FACES,
  ).min(1),
  volume: number.greater(0).max(1e8),
}).custom((mesh: RoomMesh, helpers) =>
  mesh.faces.every((f) => f.surface < mesh.surfaces.length)
    ? mesh
    : helpers.message({ custom: 'a face of the mesh is of no surface' }),
);

const laid = { id, name: text, fileId: id, isShown: Joi.boolean(), at: position, turnDeg: degrees };

export const place = Joi.object({
  name: text,
  kind: Joi.valid(...PLACE_KINDS),
  lengthUnit: Joi.valid('m', 'ft'),
  shape,
  temperatureC: number.min(-40).max(60),
  relativeHumidityPercent: number.min(0).max(100),
  seats: things(Joi.object({ id, name: text, position }), 5000),
  audience: things(
    Joi.object({
      id,
      name: text,
      outline,
      facingDeg: degrees,
      floorM: metres,
      riseM: number.min(-5).max(5),
      earM: number.min(0).max(10),
      rowM: number.min(0.2).max(100),
      seatM: number.min(0.2).max(100),
    }),
    200,
  ),
  fixtures: things(
    Joi.object({
      id,
      name: text,
      kind: Joi.valid(...FIXTURE_KINDS),
      x: metres,
      y: metres,
      width: number.min(0).max(MOST_M),
      depth: number.min(0).max(MOST_M),
      bottom: metres,
      top: metres,
    }),
    1000,
  ),
  roomMesh: roomMesh.allow(null).optional(),
  surfaceVariants: things(
    Joi.object({
      id,
      name: text,
      mesh: text.allow(null),
      surfaces: list(
        Joi.object({ absorption: shares, scattering: shares, material: text.allow(null) }),
        500,
      ).min(1),
    }),
    MOST_SURFACE_VARIANTS,
  ).optional(),
  underlays: things(
    Joi.alternatives(
      Joi.object({
        ...laid,
        kind: Joi.valid('picture'),
        widthPx: number.greater(0).max(1e6),
        heightPx: number.greater(0).max(1e6),
        metresPerPixel: number.greater(0).max(MOST_M),
        opacity: number.min(0).max(1),
      }),
      Joi.object({
        ...laid,
        kind: Joi.valid('model'),
        up: Joi.valid('y', 'z'),
        unitM: number.greater(0).max(1e6),
      }),
    ),
    50,
  ),
  head: Joi.object({ name: text, arrayId: id, directions: number.integer().min(1).max(20_000) })
    .allow(null)
    .optional(),
  materials: things(Joi.object({ id, name: text, absorption: shares, scattering: shares }), 500),
  wantedS: number.greater(0).max(30).allow(null),
  models: things(
    Joi.object({
      id,
      name: text.max(60),
      role: Joi.valid('full range', 'subwoofer'),
      sensitivityDb: number.min(40).max(200),
      largestDb: number.min(40).max(200),
      source: Joi.alternatives(
        Joi.object({ kind: Joi.valid('AES69', 'table', 'traces'), fileId: id }),
        Joi.object({
          kind: Joi.valid('guess'),
          guess: Joi.object({
            kind: Joi.valid(...GUESS_KINDS),
            coneIn: number.min(1).max(30),
            widthM: number.min(0.02).max(5),
            heightM: number.min(0.02).max(10),
          }),
        }),
      ),
    }),
    100,
  ),
  layoutId: text.allow(null),
  loudspeakers: things(
    Joi.object({
      id,
      name: text,
      abbreviation: Joi.string().max(12).allow(''),
      feed: text.allow(''),
      model: text,
      role: Joi.valid('full range', 'subwoofer'),
      output: channel,
      position,
      aimDeg: degrees,
      pitchDeg: degrees,
      rollDeg: degrees,
      mount: Joi.valid(...MOUNTS),
      group: group.allow(null),
      locked: Joi.boolean(),
      layoutLabel: text.allow(null),
      fitted: Joi.boolean(),
    }),
    64,
  ),
  spots: things(
    Joi.object({
      id,
      name: text,
      position,
      inAverage: Joi.boolean(),
      weight: number.min(0.1).max(10),
      surface: Joi.valid('ear', 'ground plane'),
    }),
    1000,
  ).min(1),
});
