import Joi from 'joi';
import { BLOCK_LENGTHS, MOST_MEASUREMENTS } from '../live/index.js';
import { COLUMN_MEANINGS } from '../traces/index.js';
import { LINE_STYLES } from './kept.js';
import { SMOOTHINGS } from './libraryViews.js';
import { shapes } from './shapeSchema.js';
import { memoryStamp } from './sweepSchema.js';
import { setting } from './alignSchema.js';
import {
  byId,
  channel,
  db,
  hertz,
  id,
  level,
  list,
  number,
  position,
  seconds,
  text,
  time,
} from './schemaValues.js';

const reference = Joi.alternatives(Joi.valid('generator'), channel);
const delayS = number.min(-5).max(5);
const gainDb = number.min(-120).max(120);
const blockLength = Joi.valid('merged', ...BLOCK_LENGTHS);
const levels = Joi.valid('complex', 'power', 'coherence');
const average = Joi.valid('none', 'power', 'complex', 'coherence');
const averaging = Joi.alternatives(
  Joi.object({ kind: Joi.valid('exponential'), seconds: number.min(0.05).max(3600) }),
  Joi.object({ kind: Joi.valid('for ever') }),
  Joi.object({ kind: Joi.valid('fixed'), blocks: number.integer().min(1).max(1e6) }),
);
const hz = number.min(1).max(100_000);
const period = number
  .integer()
  .min(256)
  .max(1 << 19)
  .allow(null);

const generator = Joi.object({
  signal: Joi.alternatives(
    Joi.object({ kind: Joi.valid('pink', 'white'), period }),
    Joi.object({ kind: Joi.valid('band'), fromHz: hz, toHz: hz, period }),
    Joi.object({ kind: Joi.valid('sine'), hz }),
    Joi.object({ kind: Joi.valid('multi-tone', 'file') }),
    Joi.object({ kind: Joi.valid('sweep'), seconds: number.min(0.1).max(60) }),
  ),
  levelDbfs: number.min(-120).max(0),
  loudspeakerIds: list(id, 2),
  alternateS: number.min(0.2).max(600).allow(null),
});

const bands = Joi.valid(1, 3, 6, 12, 24, 48, 'narrow');
const weighting = Joi.valid('A', 'C', 'Z');
const averagedS = number.min(0.05).max(3600).allow(null);

const knobs = Joi.object()
  .pattern(/^[a-z0-9 .-]{1,40}$/i, number)
  .max(200);
const electronics = Joi.object({
  deviceName: text.allow(''),
  output: channel,
  inputs: list(channel, 2).min(1).unique(),
  levelDbfs: number.min(-120).max(0),
  delayS,
  toleranceDb: number.greater(0).max(40),
  toleranceDeg: number.greater(0).max(180),
  flatId: id.allow(null),
  knobs,
  figures: Joi.object({
    takenAt: time,
    levelDbfs: number,
    hz,
    channels: list(
      Joi.object({
        quiet: Joi.object({ levelDb: level, weightedDb: level }).allow(null),
        tone: Joi.object({
          hz: hertz,
          levelDb: level,
          harmonicsDb: list(Joi.object({ order: number, db: level }), 20),
          distortionDb: level,
          distortionFloorDb: level,
          distortionAndNoiseDb: level,
        }).allow(null),
        latencyS: seconds.allow(null),
      }),
      2,
    ),
  }).allow(null),
});

export const live = Joi.object({
  measurements: list(
    Joi.object({
      id,
      name: text,
      input: channel,
      reference,
      delayS,
      gainDb,
      inverted: Joi.boolean(),
      isTracked: Joi.boolean(),
      averaging: averaging.allow(null).optional(),
      calibration: Joi.alternatives(
        Joi.object({ by: Joi.valid('microphone', 'nothing') }),
        Joi.object({ by: Joi.valid('file'), id }),
      ),
    }),
    MOST_MEASUREMENTS,
  ).unique('id'),
  blockLength,
  averaging,
  levels,
  average,
  timeReferenceId: id.allow(null),
  generator,
  spectrum: Joi.object({ bands, weighting, seconds: averagedS, noiseId: id.allow(null) }),
  stands: byId(position),
  electronics,
});

const liveOrigin = Joi.object({
  by: Joi.valid('live'),
  measurement: text,
  input: channel,
  reference,
  delayS,
  gainDb,
  inverted: Joi.boolean(),
  blockLength,
  averaging,
  levels,
  average,
  floor: Joi.object({ input: channel, crossoverHz: hz, levelDb: db, delayS: seconds }).allow(null),
  blocks: number.min(0),
  microphoneId: id.allow(null),
  calibration: text.allow(null),
  position: position.allow(null),
  generator: generator.allow(null),
  device: Joi.object({ name: text, knobs }).allow(null),
  spectrum: Joi.object({ bands, weighting, seconds: averagedS, splOffsetDb: number.allow(null) }).allow(null),
  memory: memoryStamp.allow(null),
  rigName: text,
  temperatureC: number.min(-60).max(80),
});

const sources = (least: number, most: number) => list(id, most).min(least);
const formula = Joi.alternatives(
  Joi.object({ op: Joi.valid('sum', 'product'), of: sources(2, 32) }),
  Joi.object({ op: Joi.valid('largest', 'smallest'), of: sources(2, 200) }),
  Joi.object({
    op: Joi.valid('average'),
    of: sources(2, 200),
    how: Joi.valid('power', 'complex', 'coherence', 'level'),
  }),
  Joi.object({ op: Joi.valid('difference', 'ratio'), of: sources(2, 2) }),
  Joi.object({ op: Joi.valid('splice'), of: sources(2, 2), atHz: hz, octaves: number.min(0).max(10) }),
  Joi.object({ op: Joi.valid('inverse', 'minimum phase', 'excess phase'), of: sources(1, 1) }),
  Joi.object({ op: Joi.valid('delay removed'), of: sources(1, 1), delayS }),
  Joi.object({ op: Joi.valid('all-pass'), of: sources(1, 1), hz, q: number.min(0.05).max(100) }),
  Joi.object({ op: Joi.valid('shapes'), of: sources(0, 0), shapes: shapes.min(1) }),
);

const origin = Joi.alternatives(
  liveOrigin,
  Joi.object({
    by: Joi.valid('file'),
    fileName: text.allow(''),
    columns: list(Joi.valid(...COLUMN_MEANINGS), 200),
    hasPhase: Joi.boolean(),
    notes: list(Joi.string().max(2000).allow(''), 200),
  }),
  Joi.object({ by: Joi.valid('computed'), formula }),
  Joi.object({
    by: Joi.valid('together'),
    parts: list(Joi.object({ loudspeakerId: id, name: text, as: Joi.object(setting) }), 64).min(2),
    spotId: id,
    spotName: text,
    position,
    levelDbfs: number.min(-200).max(0),
    microphoneId: id,
    calibration: text.allow(null),
    memory: memoryStamp,
    rigName: text,
    temperatureC: number.min(-60).max(80),
  }),
);

const look = {
  gainDb,
  delayS,
  inverted: Joi.boolean(),
  shapes,
  window: Joi.object({ beforeS: number.min(0.0001).max(1), afterS: number.min(0.0001).max(1) }).allow(null),
  calibrationId: id.allow(null),
  colour: text.allow(null),
  line: Joi.valid(...LINE_STYLES),
  smoothing: Joi.valid(...SMOOTHINGS, null),
};

export const sweepLooks = Joi.object().pattern(id, Joi.object(look)).max(20_000);

export const keptTraces = list(
  Joi.object({
    id,
    kind: Joi.valid('transfer function', 'spectrum'),
    name: text,
    keptAt: time,
    note: Joi.string().max(2000).allow(''),
    folder: text.allow(''),
    tags: list(text, 50),
    arrayId: id.allow(null),
    origin,
    view: Joi.object({ ...look, isShown: Joi.boolean() }),
  }),
  20_000,
).unique('id');
