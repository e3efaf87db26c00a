import { needAbove, needNumber } from '../limits/index.js';
/** A value in whole steps, without the rounding error of the multiplication; never -0. */
export function inSteps(value: number, step: number): number {
  needNumber('inSteps', 'value', value);
  needAbove('inSteps', 'step', step, 0);
  return Number((Math.round(value / step) * step).toFixed(6)) + 0;
}
