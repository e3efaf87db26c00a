import Joi from 'joi';
import {
  channel,
  id,
  level,
  list,
  memoryName,
  noiseTraits,
  number,
  position,
  text,
  time,
} from './schemaValues.js';

export const verdict = Joi.object({
  state: Joi.valid('good', 'doubtful', 'failed'),
  reasons: list(Joi.object({ kind: text }).unknown(true), 100),
  snrDb: level,
  band: Joi.object({ from: number, to: number }).allow(null),
});

export const margins = list(
  Joi.object({ centre: number.greater(0), noiseDb: level, signalDb: level, snrDb: level }),
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
  arrivalS: number.allow(null),
  distortionDb: level,
  polarity: Joi.object({ reversed: Joi.boolean(), certainty: number, arrivalS: number }).allow(null),
  noise: noiseTraits,
  inAverage: Joi.boolean(),
  note: Joi.string().max(2000).allow(''),
  conditions: Joi.object({
    spot: position,
    loudspeaker: position,
    output: channel,
    rigName: text,
    temperatureC: number,
  }).allow(null),
  decayEnd: Joi.object({ lowS: number.allow(null), highS: number.allow(null) }).allow(null),
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
    levelDb: number,
    delayS: number,
    misfitDb: number,
  }).allow(null),
  groundPlane: Joi.boolean(),
});
