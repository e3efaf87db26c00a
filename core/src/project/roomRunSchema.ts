import { MOST_ROOM_FACES } from './placeSchema.js';
import Joi from 'joi';
import { INSTRUMENTS, MOST_RECEIVER_SECONDS, RAYS_PER_GROUP, VOICES, type RoomRun } from '../runs/index.js';
import { id, list, number, position, text, time } from './schemaValues.js';

const near = number.min(-10_000).max(10_000);
const at = Joi.object({ x: near, y: near, z: near }).options({ presence: 'required' });
const shares = list(number.min(0).max(1), 8).length(8);
const azimuthDeg = number.min(-360).max(360);
const source = { id, name: text, position: at };

/** A run of the room model. */
export const roomRun = Joi.object<RoomRun>({
  id,
  name: text,
  madeAt: time,
  faces: list(
    Joi.object({ name: text, corners: list(position, 200).min(3), absorption: shares, scattering: shares }),
    MOST_ROOM_FACES,
  ).min(1),
  volume: number.greater(0).max(1e8),
  air: Joi.object({
    temperatureC: number.min(-40).max(60),
    relativeHumidityPercent: number.min(0).max(100),
  }),
  sources: list(
    Joi.alternatives(
      Joi.object({ ...source, kind: Joi.valid('omnidirectional') }),
      Joi.object({
        ...source,
        kind: Joi.valid('talker'),
        azimuthDeg,
        elevationDeg: number.min(-90).max(90),
        voice: Joi.valid(...Object.keys(VOICES)),
      }),
      Joi.object({
        ...source,
        kind: Joi.valid('instrument'),
        azimuthDeg,
        instrument: Joi.valid(...Object.keys(INSTRUMENTS)),
      }),
      Joi.object({
        ...source,
        kind: Joi.valid('loudspeaker'),
        loudspeakerId: id,
        signalDbfs: number.min(-100).max(0),
        setting: text,
      }),
    ),
    24,
  )
    .min(1)
    .unique('id'),
  receivers: list(Joi.object({ id, name: text, position: at, azimuthDeg }), 500)
    .min(1)
    .unique('id'),
  mirrored: number.integer().min(0).max(6),
  lengthS: number.min(0.05).max(20),
  raysPerGroup: number.integer().min(RAYS_PER_GROUP.least).max(RAYS_PER_GROUP.most),
  groups: number.integer().min(4).max(1000),
  seed: number
    .integer()
    .min(0)
    .max(2 ** 32),
  noiseLevelsDb: list(number.min(-100).max(150), 8).length(8).allow(null),
  tracedBy: Joi.valid('browser', 'server'),
  isHeld: Joi.boolean(),
}).options({ presence: 'required' });

export const roomRuns = list(roomRun, 200).unique('id');

/** What the schema cannot say: a run whose data would be too large. */
export const runProblem = ({ name, receivers, lengthS }: RoomRun): string | null =>
  receivers.length * lengthS > MOST_RECEIVER_SECONDS
    ? `the run ${name} asks for ${receivers.length} receivers of ${lengthS} s, more than ${MOST_RECEIVER_SECONDS} s in all`
    : null;
