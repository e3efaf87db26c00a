import Joi from 'joi';

export const id = Joi.string().pattern(/^[a-zA-Z0-9-]{1,64}$/);
export const text = Joi.string().max(200);
export const number = Joi.number().unsafe();
export const time = number.min(0);
export const position = Joi.object({ x: number, y: number, z: number }).options({ presence: 'required' });
/** what a memory of a processor is called */
export const memoryName = Joi.string().pattern(/^[A-Za-z0-9 -]{1,20}$/);
export const metres = number.min(0).max(1000);
/** connector of an interface or output of a processor */
export const channel = number.integer().min(1).max(64);
export const span = Joi.object({ from: number.greater(0), to: number.greater(Joi.ref('from')) });
export const list = (item: Joi.Schema, most: number) => Joi.array().items(item).max(most);
export const byId = (item: Joi.Schema) => Joi.object().pattern(id, item).max(1000);
/** JSON has no infinity: a level of nothing is written as null. */
export const level = number.allow(null, -Infinity);
export const noiseTraits = list(Joi.object({ kind: text, riseDb: number }).unknown(true), 100);
