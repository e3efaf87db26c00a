import Joi from 'joi';

/** Names that every object has from the start: as keys of a map they would be found where nothing was put. */
const INBORN = new Set(Object.getOwnPropertyNames(Object.prototype));

export const id = Joi.string()
  .pattern(/^[a-zA-Z0-9-]{1,64}$/)
  .custom((value: string, helpers) =>
    INBORN.has(value) ? helpers.message({ custom: `{{#label}} is "${value}", which no id may be` }) : value,
  );
export const text = Joi.string().max(200);
/** No quantity here is larger, in any unit, moments in milliseconds among them: what is is a slip, or made to break something. */
const LARGEST = 1e13;
export const number = Joi.number().unsafe().min(-LARGEST).max(LARGEST);
export const time = number.min(0);
/** metres, in a place or about it */
const coordinate = number.min(-10_000).max(10_000);
export const position = Joi.object({ x: coordinate, y: coordinate, z: coordinate }).options({
  presence: 'required',
});
/** what a memory of a processor is called */
export const memoryName = Joi.string().pattern(/^[A-Za-z0-9 -]{1,20}$/);
export const metres = number.min(0).max(1000);
/** connector of an interface or output of a processor */
export const channel = number.integer().min(1).max(64);
export const span = Joi.object({ from: number.greater(0), to: number.greater(Joi.ref('from')) });
export const list = (item: Joi.Schema, most: number) => Joi.array().items(item).max(most);
/** Things by their ids, each of them once. */
export const things = (item: Joi.Schema, most: number) => list(item, most).unique('id');
export const byId = (item: Joi.Schema) => Joi.object().pattern(id, item).max(1000);
/** a level or a difference of levels, dB */
export const db = number.min(-1000).max(1000);
/** JSON has no infinity: a level of nothing is written as null. */
export const level = db.allow(null, -Infinity);
/** seconds, of delays and arrivals */
export const seconds = number.min(-1000).max(1000);
export const hertz = number.greater(0).max(1e6);
const riseDb = db;
export const noiseTraits = list(
  Joi.alternatives(
    Joi.object({
      kind: Joi.valid('hum'),
      mainsHz: Joi.valid(50, 60),
      multiples: list(number.integer().min(1).max(1000), 100),
      riseDb,
    }),
    Joi.object({ kind: Joi.valid('tone'), frequency: hertz, riseDb }),
    Joi.object({ kind: Joi.valid('rumble'), belowHz: hertz, riseDb }),
  ),
  100,
);

/** A curve of levels over frequencies that ascend, both equally long. */
export const curve = (fewest: number, levelDb: Joi.Schema, most = 100_000) => ({
  frequency: list(hertz, most)
    .min(fewest)
    .custom((values: number[], helpers) =>
      values.every((f, i) => i === 0 || f > values[i - 1]!)
        ? values
        : helpers.message({ custom: '{{#label}} does not ascend' }),
    ),
  levelDb: list(levelDb, most).length(Joi.ref('frequency.length')),
});
