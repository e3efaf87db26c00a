import Joi from 'joi';
import {
  channel,
  db,
  hertz,
  id,
  level,
  list,
  memoryName,
  noiseTraits,
  number,
  position,
  seconds,
  text,
  time,
} from './schemaValues.js';

const count = number.integer().min(0);
const reason = Joi.alternatives(
  Joi.object({ kind: Joi.valid('silent'), snrDb: level }),
  Joi.object({ kind: Joi.valid('clipped'), count, atS: seconds }),
  Joi.object({ kind: Joi.valid('near noise'), snrDb: level, aimDb: db }),
  Joi.object({
    kind: Joi.valid('disturbed'),
    disturbance: Joi.object({
      atS: seconds,
      durationS: seconds,
      fromHz: number.min(0),
      toHz: number.min(0),
      levelDb: level,
    }),
  }),
  Joi.object({ kind: Joi.valid('no loopback', 'no click') }),
  Joi.object({ kind: Joi.valid('dropouts'), count }),
);

export const verdict = Joi.object({
  state: Joi.valid('good', 'doubtful', 'failed'),
  reasons: list(reason, 100),
  snrDb: level,
  band: Joi.object({ from: number.min(0), to: number.min(0) }).allow(null),
});

export const margins = list(
  Joi.object({ centre: hertz, noiseDb: level, signalDb: level, snrDb: level }),
  100,
);

export const memoryStamp = Joi.object({
  letter: memoryName,
  name: text.allow(''),
  checksum: number,
  hasFilters: Joi.boolean(),
});

export const sweep = Joi.object({
  id,
  stage: Joi.valid('as found', 'verified', 'verified with bass'),
  roundId: id,
  spotId: id,
  loudspeakerId: id,
  traceId: id,
  takenAt: time,
  levelDbfs: number.max(0),
  microphoneId: id,
  calibrationId: id.allow(null),
  memory: memoryStamp,
  verdict,
  margins,
  arrivalS: seconds.allow(null),
  distortionDb: level,
  polarity: Joi.object({ reversed: Joi.boolean(), certainty: number, arrivalS: seconds }).allow(null),
  noise: noiseTraits,
  inAverage: Joi.boolean(),
  note: Joi.string().max(2000).allow(''),
  conditions: Joi.object({
    spot: position,
    loudspeaker: position,
    output: channel,
    rigName: text,
    temperatureC: number.min(-100).max(100),
  }).allow(null),
  decayEnd: Joi.object({ lowS: seconds.allow(null), highS: seconds.allow(null) }).allow(null),
  levelOffsetDb: number.min(-120).max(120),
  repeats: number.integer().min(1).max(64),
  harmonicsId: id.allow(null),
  referenceId: id.allow(null),
  floor: Joi.object({
    microphoneId: id,
    calibrationId: id.allow(null),
    traceId: id,
    joinedId: id,
    crossoverHz: number.min(50).max(8000),
    levelDb: db,
    delayS: seconds,
    misfitDb: db,
  }).allow(null),
  groundPlane: Joi.boolean(),
});
