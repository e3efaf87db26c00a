import Joi from 'joi';
import { LIBRARY_PLOTS, MOST_LOWER_PLOTS, SMOOTHINGS } from './libraryViews.js';
import { id, list, number, text } from './schemaValues.js';

const hz = number.min(1).max(100_000);

/** How the library's plots are looked at. */
export const libraryLook = Joi.object({
  plots: list(Joi.valid(...LIBRARY_PLOTS), MOST_LOWER_PLOTS)
    .min(1)
    .unique(),
  smoothing: Joi.valid(...SMOOTHINGS),
  fades: Joi.boolean(),
  fromHz: hz,
  toHz: hz.greater(Joi.ref('fromHz')),
  againstId: id.allow(null),
  target: Joi.object({ traceId: id, toleranceDb: number.greater(0).max(40) }).allow(null),
  marked: Joi.object({ from: hz, to: hz.greater(Joi.ref('from')) }).allow(null),
  shownIds: list(id, 1000),
});

export const libraryViews = list(
  Joi.object({ id, name: text, look: libraryLook, keptIds: list(id, 1000) }),
  200,
).unique('id');
