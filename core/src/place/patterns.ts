import { needWithin } from '../limits/index.js';

/** What a gradient pair is wanted to leave out, as where it is silent, degrees off its front. */
export const GRADIENT_PATTERNS = [
  { name: 'cardioid', nullDeg: 180 },
  // most of what comes from ahead against what comes from behind, and against all about
  { name: 'supercardioid', nullDeg: (180 * Math.acos(-1 / Math.sqrt(3))) / Math.PI },
  { name: 'hypercardioid', nullDeg: (180 * Math.acos(-1 / 3)) / Math.PI },
] as const;
export type GradientPattern = (typeof GRADIENT_PATTERNS)[number]['name'];

/**
 * By how much the rear box of a gradient pair, which is inverted, waits so that it is silent in a direction: as long as the front one's
 * sound needs to pass it on its way there.
 * @param spacingM front to rear @param nullDeg off the front, 90 to 180 @param speed of sound, m/s @returns ms
 */
export function gradientDelayMs(spacingM: number, nullDeg: number, speed: number): number {
  needWithin('gradientDelayMs', 'spacing in m', spacingM, 0, 1000);
  needWithin('gradientDelayMs', 'direction in degrees', nullDeg, 90, 180);
  needWithin('gradientDelayMs', 'speed of sound in m/s', speed, 100, 2000);
  return (-1000 * spacingM * Math.cos((nullDeg * Math.PI) / 180)) / speed;
}

/** By how much each box of an end-fire row waits for the one behind it: as long as sound needs between them, so that all add up ahead. ms */
export function endFireStepMs(spacingM: number, speed: number): number {
  needWithin('endFireStepMs', 'spacing in m', spacingM, 0, 1000);
  needWithin('endFireStepMs', 'speed of sound in m/s', speed, 100, 2000);
  return (1000 * spacingM) / speed;
}
