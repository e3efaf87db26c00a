import Joi from 'joi';
import { FILTER_FAMILIES, MOST_ORDER } from '../shapes/index.js';
import { id, list, number, text } from './schemaValues.js';

const hz = number.min(0.1).max(1e6);
const gainDb = number.min(-120).max(120);
const q = number.greater(0).max(1000);
const shelf = Joi.valid('low shelf', 'high shelf');
const pass = Joi.valid('high-pass', 'low-pass');
const order = number.integer().min(1).max(MOST_ORDER);
const family = Joi.valid(...FILTER_FAMILIES);
const first = { order: Joi.valid(1), q: Joi.valid(null) };
const second = { order: Joi.valid(2), q };

const shape = Joi.alternatives(
  Joi.object({ kind: Joi.valid('peaking'), hz, gainDb, q }),
  Joi.object({ kind: shelf, hz, gainDb, ...first }),
  Joi.object({ kind: shelf, hz, gainDb, ...second }),
  Joi.object({ kind: pass, hz, family: family.invalid('Linkwitz-Riley'), order }),
  Joi.object({ kind: pass, hz, family: Joi.valid('Linkwitz-Riley'), order: order.multiple(2) }),
  Joi.object({ kind: Joi.valid('all-pass'), hz, ...first }),
  Joi.object({ kind: Joi.valid('all-pass'), hz, ...second }),
);

/** Shapes in a row. */
export const shapes = list(shape, 24);

const wanted = Joi.alternatives(
  Joi.object({ kind: Joi.valid('peaking') }),
  Joi.object({ kind: shelf, order: Joi.valid(1, 2, null), undershoots: Joi.boolean() }),
  Joi.object({ kind: pass, family: family.allow(null), order: order.allow(null) }),
  Joi.object({ kind: Joi.valid('all-pass'), order: Joi.valid(1, 2, null) }),
);

export const readings = list(
  Joi.object({
    id,
    name: text,
    traceId: id,
    wanted: list(wanted, 12).min(1),
    published: list(
      Joi.object({
        hz: hz.allow(null),
        gainDb: gainDb.allow(null),
        q: q.allow(null),
        order: order.allow(null),
      }),
      12,
    ).length(Joi.ref('wanted.length')),
    tolerance: Joi.object({
      hzPercent: number.greater(0).max(100),
      gainDb: number.greater(0).max(40),
      qPercent: number.greater(0).max(400),
    }),
    from: number.min(1).max(100_000),
    to: number.greater(Joi.ref('from')).max(100_000),
    levelIsFree: Joi.boolean(),
    rate: number.min(8000).max(768_000).allow(null),
    family: text.allow(''),
  }),
  2000,
).unique('id');
