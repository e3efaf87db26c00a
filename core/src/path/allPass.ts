import type { Section } from './section.js';

/** An all-pass section as a circuit: of first order where it has no Q. */
export interface AllPassSection {
  hz: number;
  /** null for the first order */
  q: number | null;
}

/** How far an all-pass turns the phase at a frequency, radians; 0 at 0 Hz, negative above, to half a turn or a whole one. */
export function allPassTurn({ hz, q }: AllPassSection, f: number): number {
  const x = f / hz;
  // the angle of the denominator goes on rising through a quarter turn at its frequency
  return q === null ? -2 * Math.atan(x) : -2 * Math.atan2(x / q, 1 - x * x);
}

/** The turns of several in a row at each frequency, radians. */
export const allPassTurns = (sections: readonly AllPassSection[], frequency: Float64Array): Float64Array =>
  frequency.map((f) => sections.reduce((sum, s) => sum + allPassTurn(s, f), 0));

/** What a section of the first order has for a Q, which means nothing there. */
const NO_Q = 0.5;

/** The same as a section of a processor. */
export const allPassAsSection = ({ hz, q }: AllPassSection): Section => ({
  kind: q === null ? 'first-order all-pass' : 'all-pass',
  frequency: hz,
  gainDb: 0,
  q: q ?? NO_Q,
});
