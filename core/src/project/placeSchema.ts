import Joi from 'joi';
import { channel, id, list, number, position, text } from './schemaValues.js';

export const place = Joi.object({
  name: text,
  size: Joi.object({
    x: number.greater(0).max(1000),
    y: number.greater(0).max(1000),
    z: number.greater(0).max(1000),
  }),
  temperatureC: number.min(-40).max(60),
  seats: list(Joi.object({ id, name: text, position }), 5000),
  furniture: list(
    Joi.object({
      kind: Joi.valid('sofa', 'chair', 'window', 'rug'),
      x: number,
      y: number,
      width: number,
      depth: number,
    }),
    1000,
  ),
  loudspeakers: list(
    Joi.object({
      id,
      name: text,
      model: text,
      role: Joi.valid('full range', 'subwoofer'),
      output: channel,
      position,
      aimDeg: number,
      fitted: Joi.boolean(),
    }),
    64,
  ),
  spots: list(
    Joi.object({
      id,
      name: text,
      position,
      inAverage: Joi.boolean(),
      weight: number.min(0.1).max(10),
      surface: Joi.valid('ear', 'ground plane'),
    }),
    1000,
  ).min(1),
});
