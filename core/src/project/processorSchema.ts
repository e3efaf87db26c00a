import Joi from 'joi';
import { CROSSOVER_KINDS, CROSSOVER_ORDERS, SECTION_KINDS, SHAPING_KINDS } from '../path/index.js';
import type { ProcessorProfile } from '../processing/index.js';
import { id, list, number, text } from './schemaValues.js';

const step = number.greater(0).max(100);
const level = number.min(-200).max(200);

/** What a processor can do, as typed, opened from a file or stored. */
export const processorProfile = Joi.object<ProcessorProfile>({
  model: text.min(1),
  outputs: number.integer().min(1).max(64),
  rate: number.integer().min(8000).max(768_000),
  latencyMs: number.min(0).max(10_000),
  memories: list(Joi.string().max(20), 100),
  mostTaps: number.integer().min(0).max(1_048_576),
  mostSections: number.integer().min(0).max(64),
  sectionKinds: list(Joi.valid(...SECTION_KINDS), SECTION_KINDS.length)
    .unique()
    .when('mostSections', { is: 0, otherwise: Joi.array().has(Joi.valid(...SHAPING_KINDS)) }),
  crossovers: Joi.object(
    Object.fromEntries(
      CROSSOVER_KINDS.map((kind) => [kind, list(Joi.valid(...CROSSOVER_ORDERS[kind]), 20).optional()]),
    ),
  ),
  bassManagement: Joi.boolean(),
  gainStepDb: step,
  frequencyStepHz: step,
  leastQ: number.greater(0).max(100),
  mostQ: number.min(Joi.ref('leastQ')).max(1000),
  qStep: step,
  leastSectionDb: level.max(0),
  mostSectionDb: level.min(0),
  leastTrimDb: level.max(0),
  mostTrimDb: level.min(0),
  trimStepDb: step,
  mostDelayMs: number.min(0).max(600_000),
  delayStepMs: step,
})
  .custom((profile: ProcessorProfile, helpers) =>
    profile.mostTaps === 0 && profile.mostSections === 0
      ? helpers.message({ custom: 'a processor without taps and without sections cannot correct anything' })
      : profile,
  )
  .options({ presence: 'required', convert: false });

/** Which processor is in the chain: the stand-in, which tells what it can, or none that is reached, by its profile. */
export const processor = Joi.alternatives(
  Joi.object({ adapter: Joi.valid('stand-in'), unit: id }),
  Joi.object({
    adapter: Joi.valid('files only'),
    unit: id,
    profile: processorProfile,
    inPlaceId: id.allow(null),
  }),
);
