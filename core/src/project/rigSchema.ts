import Joi from 'joi';
import {
  byId,
  channel,
  db,
  hertz,
  id,
  level,
  list,
  metres,
  noiseTraits,
  number,
  seconds,
  text,
  things,
  time,
} from './schemaValues.js';
import { margins, verdict } from './sweepSchema.js';

const levelCalibration = Joi.object({
  takenAt: time,
  nominalDb: Joi.valid(94, 114),
  readDb: db,
  gainDb: db,
  rigName: text,
  linearity: Joi.object({ nominalDb: Joi.valid(94, 114), offDb: db }).allow(null),
  driftDb: db.allow(null),
});

const microphone = Joi.object({
  id,
  make: text.allow(''),
  serial: text.allow(''),
  pointing: Joi.valid('at the source', 'upright', 'on the floor'),
  input: channel,
  gainDb: number.min(-60).max(100),
  calibrationIds: list(id, 100),
  calibrationId: id.allow(null),
  levels: list(levelCalibration, 1000),
});

const device = Joi.object({
  inputId: Joi.string().max(500).allow(''),
  inputName: Joi.string().max(500).allow(''),
  outputId: Joi.string().max(500).allow(''),
  outputName: Joi.string().max(500).allow(''),
  rate: number.min(8000).max(384_000),
  inputs: channel,
  outputs: channel,
  releases: Joi.boolean(),
});

const roundTrip = Joi.object({
  takenAt: time,
  rigName: text,
  output: channel,
  input: channel,
  latencyS: number.min(0).max(10),
  traceId: id,
  divideOut: Joi.boolean(),
});

export const rig = Joi.object({
  kind: Joi.valid('simulated', 'web audio'),
  pace: Joi.valid('quick', 'real time'),
  device: device.allow(null),
  microphones: things(microphone, 64).min(1),
  microphoneId: id,
  alongIds: list(id, 64),
  pairs: list(Joi.object({ earId: id, floorId: id, crossoverHz: number.min(50).max(8000) }), 64),
  repeats: number.integer().min(1).max(64),
  referenceFrom: id.allow(null),
  loopbackInput: channel.allow(null),
  timing: Joi.valid('loopback', 'click', 'round trip'),
  clickFrom: id.allow(null),
  roundTrip: roundTrip.allow(null),
  distances: list(
    Joi.object({
      a: id,
      b: id,
      typedM: metres.allow(null),
      heardM: metres.allow(null),
      adjustedM: metres.allow(null),
    }),
    10_000,
  ),
  heardTraces: byId(byId(id)),
  processorBefore: Joi.object({
    takenAt: time,
    letter: Joi.string().max(1),
    outputs: list(
      Joi.object({
        trimDb: db,
        delayMs: number.min(0).max(600_000),
        inverted: Joi.boolean(),
        muted: Joi.boolean(),
      }),
      64,
    ),
  }).allow(null),
  levelDbfs: number.min(-120).max(0),
  sweepS: number.min(0.7).max(20),
  noise: Joi.object({
    takenAt: time,
    bands: list(Joi.object({ centre: hertz, noiseDb: level }), 100),
    traits: noiseTraits,
  }).allow(null),
  checks: byId(
    Joi.object({
      takenAt: time,
      levelDbfs: db,
      verdict,
      margins,
      arrivalS: seconds.allow(null),
      reversed: Joi.boolean().allow(null),
      certainty: number.allow(null),
      distortionDb: level,
      delayS: number.min(0).max(10),
      traceId: id.allow(null),
    }),
  ),
});
