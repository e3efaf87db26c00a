/** A value in whole steps, without the rounding error of the multiplication; never -0. */
export const inSteps = (value: number, step: number): number =>
  Number((Math.round(value / step) * step).toFixed(6)) + 0;
