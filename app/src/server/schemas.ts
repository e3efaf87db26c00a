import { CROSSOVER_KINDS, CROSSOVER_ORDERS } from '@pebble-hall/core/path';
import type { OutputChange, OutputSettings } from '@pebble-hall/core/processing';
import { SKERRY } from '@pebble-hall/stand-ins/processor';
import Joi from 'joi';

const letter = Joi.valid(...SKERRY.memories);
const crossover = Joi.object({
  kind: Joi.valid(...CROSSOVER_KINDS),
  order: Joi.when('kind', {
    switch: CROSSOVER_KINDS.map((is) => ({ is, then: Joi.valid(...CROSSOVER_ORDERS[is]) })),
  }),
  frequency: Joi.number().min(10).max(20000),
}).allow(null);

const bassFeed = Joi.object({ gainDb: Joi.number().min(-80).max(24), lowPass: crossover }).allow(null);
const size = Joi.valid('small', 'large');
/** Steps of the device: a tenth of a dB, one hertz; in between it would round by itself. */
const sections = Joi.array()
  .items(
    Joi.object({
      kind: Joi.valid(...SKERRY.sectionKinds),
      frequency: Joi.number().min(10).max(22000),
      gainDb: Joi.number().min(SKERRY.leastSectionDb).max(SKERRY.mostSectionDb),
      q: Joi.number().min(0.1).max(40),
    }),
  )
  .max(SKERRY.mostSections);

const trim = Joi.number().min(SKERRY.leastTrimDb).max(SKERRY.mostTrimDb);
const delay = Joi.number().min(0).max(SKERRY.mostDelayMs);

const output = Joi.object({
  trimDb: trim,
  delayMs: delay,
  inverted: Joi.boolean(),
  muted: Joi.boolean(),
  size,
  sections,
  highPass: crossover,
  lowPass: crossover,
  taps: Joi.number().integer().min(0).max(SKERRY.mostTaps),
  bassFeed,
  playsBass: Joi.boolean(),
});

export interface TransferRequest {
  letter: string;
  name: string;
  outputs: OutputSettings[];
  checksum: number;
}

export const transferSchema: Joi.ObjectSchema<TransferRequest> = Joi.object({
  letter,
  name: Joi.string().max(40).allow(''),
  outputs: Joi.array().items(output).length(SKERRY.outputs),
  checksum: Joi.number().integer().min(0).max(0xffffffff),
});

export const recallSchema: Joi.ObjectSchema<{ letter: string }> = Joi.object({
  letter,
});

export const renameSchema: Joi.ObjectSchema<{ name: string }> = Joi.object({
  name: Joi.string().max(40).allow(''),
});

export const copySchema: Joi.ObjectSchema<{ to: string }> = Joi.object({
  to: letter,
});

export const faultSchema: Joi.ObjectSchema<{ breakAtShare?: number | null; leftOver?: boolean }> = Joi.object(
  {
    breakAtShare: Joi.number().min(0).max(1).allow(null).optional(),
    leftOver: Joi.boolean().optional(),
  },
);

export const outputsSchema: Joi.ObjectSchema<{ changes: OutputChange[] }> = Joi.object({
  changes: Joi.array()
    .items(
      Joi.object({
        output: Joi.number().integer().min(1).max(SKERRY.outputs),
        trimDb: trim.optional(),
        delayMs: delay.optional(),
        inverted: Joi.boolean().optional(),
        muted: Joi.boolean().optional(),
        size: size.optional(),
        highPass: crossover.optional(),
        lowPass: crossover.optional(),
        bassFeed: bassFeed.optional(),
        playsBass: Joi.boolean().optional(),
      }),
    )
    .max(SKERRY.outputs),
});
