import Joi from 'joi';
import { MOST_ALL_PASSES, MOST_SOURCES, MOST_WEIGHT } from './align.js';
import { allPass, crossover } from './correctionSchema.js';
import { byId, id, list, number, position, text } from './schemaValues.js';

export const setting = {
  gainDb: number.min(-120).max(60),
  delayS: number.min(-5).max(5),
  inverted: Joi.boolean(),
  allPasses: list(allPass, MOST_ALL_PASSES),
  highPass: crossover,
  lowPass: crossover,
};

const sourceOf = Joi.alternatives(
  Joi.object({
    kind: Joi.valid('traces'),
    traceIds: list(id, 20).min(1).unique(),
    shownId: Joi.valid(Joi.in('traceIds')),
  }),
  Joi.object({
    kind: Joi.valid('channels'),
    loudspeakerIds: list(id, 64).min(1).unique(),
    from: Joi.valid('sweeps', 'models'),
  }),
  Joi.object({
    kind: Joi.valid('distance'),
    referenceId: id,
    distanceM: number.min(0.1).max(1000),
    count: number.integer().min(1).max(64),
  }),
  Joi.object({ kind: Joi.valid('live'), measurementId: id }),
  Joi.object({ kind: Joi.valid('step'), stepId: id }),
);

const source = Joi.object({ id, name: text, of: sourceOf, ...setting });

/** Steps of an alignment. */
export const alignSteps = list(
  Joi.object({
    id,
    name: text,
    sources: list(source, MOST_SOURCES).min(2).unique('id'),
    referenceId: id,
    target: Joi.object({ traceId: id, toleranceDb: number.greater(0).max(40) }).allow(null),
    togetherId: id.allow(null),
    aim: Joi.valid('mean', 'worst', 'place'),
    areaWeights: Joi.object().pattern(id, number.min(0).max(MOST_WEIGHT)).max(1000),
    alignAt: Joi.object({ position, reason: text }).allow(null),
    mostAllPasses: number.integer().min(0).max(MOST_ALL_PASSES),
    kept: list(Joi.object({ id, name: text, settings: byId(Joi.object(setting)) }), 100).unique('id'),
    restedOn: byId(byId(Joi.object(setting))),
    isDone: Joi.boolean(),
  }),
  100,
).unique('id');
